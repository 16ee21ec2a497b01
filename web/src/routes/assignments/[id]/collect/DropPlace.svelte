<script lang="ts">
  import { csrfToken } from '$lib/api/client';

  let { id, done, failed }: { id: number; done: () => Promise<void>; failed: (sentence: string) => void } =
    $props();
  let over = $state(false);
  let sent = $state<number | null>(null);

  function send(files: FileList | null | undefined) {
    if (!files?.length) return;
    failed('');
    const body = new FormData();
    for (const file of files) body.append('file', file, file.name);
    const request = new XMLHttpRequest();
    request.upload.onprogress = (e) => (sent = e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = async () => {
      sent = null;
      if (request.status >= 400) {
        let sentence = `The upload was refused (${request.status}).`;
        try {
          sentence = JSON.parse(request.responseText).detail ?? sentence;
        } catch {
          // the sentence above says it
        }
        failed(sentence);
      }
      await done();
    };
    request.onerror = () => {
      sent = null;
      failed('The upload broke off. Nothing was kept; try again.');
    };
    request.open('POST', `/api/assignments/${id}/batches`);
    request.setRequestHeader('X-CSRFToken', csrfToken());
    sent = 0;
    request.send(body);
  }
</script>

<div
  role="group"
  aria-label="Hand in the class's work"
  class={[
    'flex items-center gap-6 border-y-[3px] border-double px-6 py-6',
    over ? 'border-seal bg-lit' : 'border-line'
  ]}
  ondragover={(e) => {
    e.preventDefault();
    over = true;
  }}
  ondragleave={() => (over = false)}
  ondrop={(e) => {
    e.preventDefault();
    over = false;
    send(e.dataTransfer?.files);
  }}
>
  <div class="grow">
    <p class="font-serif text-lg">Drop the class's work here</p>
    <p class="quiet">
      A ZIP or tar.gz with one folder, file or archive a student; or the files themselves. System and compiled
      files are left out.
    </p>
  </div>
  {#if sent !== null}
    <progress value={sent} aria-label="Upload"></progress>
  {:else}
    <label class="press press-seal cursor-pointer focus-within:outline-2 focus-within:outline-seal">
      Choose files
      <input type="file" multiple class="sr-only" onchange={(e) => send(e.currentTarget.files)} />
    </label>
  {/if}
</div>
