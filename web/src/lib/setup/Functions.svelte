<script lang="ts">
  import type { Spec } from '$lib/api/client';

  let { functions = $bindable() }: { functions: Spec['functions'] } = $props();

  function add() {
    functions.push({
      name: '',
      also: [],
      parameters: null,
      returns: null,
      called: true,
      parameter_decides: false,
      purpose: ''
    });
  }
  type Count = Spec['functions'][number]['parameters'];
  function readCount(text: string): Count {
    const numbers = text.match(/\d+/g)?.map(Number) ?? [];
    return numbers.length > 1 ? numbers.slice(0, 2) : (numbers[0] ?? null);
  }
  function writeCount(count: Count): string {
    return Array.isArray(count) ? count.join(' to ') : `${count ?? ''}`;
  }
</script>

<section>
  <h2 class="mb-2 border-b border-line pb-1">Required functions</h2>
  {#if functions.length}
    <table class="w-full">
      <thead class="quiet text-left">
        <tr
          ><th class="font-normal">Name</th><th class="font-normal">Also accepted</th><th class="font-normal"
            >Parameters</th
          >
          <th class="font-normal">Result</th><th class="font-normal">What it does</th><th></th></tr
        >
      </thead>
      <tbody>
        {#each functions as f, i (f)}
          <tr>
            <td class="py-1 pr-2"
              ><input
                class="mono w-36"
                aria-label="Name"
                required
                pattern={`[^\\(\\)\\[\\]\\{\\}"',;]+`}
                bind:value={f.name}
              /></td
            >
            <td class="pr-2">
              <input
                class="mono w-28"
                aria-label="Also accepted names of {f.name}"
                value={f.also.join(' ')}
                onchange={(e) => (f.also = e.currentTarget.value.split(/[\s,]+/).filter(Boolean))}
              />
            </td>
            <td class="pr-2">
              <input
                class="mono w-20"
                aria-label="Number of parameters of {f.name}"
                title="A number, or a range such as 1 to 3; empty for any"
                placeholder="any"
                pattern={'\\s*(\\d+(\\s*(to|-)\\s*\\d+)?)?\\s*'}
                value={writeCount(f.parameters)}
                onchange={(e) => (f.parameters = readCount(e.currentTarget.value))}
              />
            </td>
            <td class="pr-2">
              <select
                aria-label="Result of {f.name}"
                value={String(f.returns)}
                onchange={(e) =>
                  (f.returns = e.currentTarget.value === 'null' ? null : e.currentTarget.value === 'true')}
              >
                <option value="null">either</option><option value="true">returns</option><option value="false"
                  >none</option
                >
              </select>
            </td>
            <td class="w-full pr-2"
              ><input class="w-full" aria-label="What {f.name} does" bind:value={f.purpose} /></td
            >
            <td
              ><button
                type="button"
                class="quiet whitespace-nowrap hover:underline"
                onclick={() => functions.splice(i, 1)}>take out</button
              ></td
            >
          </tr>
        {/each}
      </tbody>
    </table>
  {:else}
    <p class="quiet mb-1">None: students divide the program as they like.</p>
  {/if}
  <button type="button" class="press mt-2" onclick={add}>Add a function</button>
</section>
