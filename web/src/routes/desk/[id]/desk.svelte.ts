// What the desk does: every decision is kept at once, and can be taken back.
import { api, take, type Desk, type Finding, type Schemas } from '$lib/api/client';
import { written } from '$lib/conflict.svelte';
import { groupsOf } from '$lib/groups';

export type RemarkRow = {
  remark: Schemas['Remark'];
  finding: Finding | null;
  group: number;
};

/** Remarks in reading order: by place in the program; own remarks to the whole come last. */
export function rowsOf(desk: Desk): RemarkRow[] {
  const findings = new Map((desk.report?.findings ?? []).map((f) => [f.id, f]));
  const groups = new Map(groupsOf(desk.report).map((g) => [g.finding.id, g.number]));
  return desk.remarks
    .map((remark) => {
      const finding = findings.get(remark.finding ?? '') ?? null;
      return { remark, finding, group: finding ? (groups.get(finding.id) ?? 0) : 0 };
    })
    .filter((row) => row.finding || !row.remark.finding)
    .sort((a, b) => place(a) - place(b));
}

function place(row: RemarkRow): number {
  return row.finding?.places[0]?.start_line ?? row.remark.line ?? 1e9;
}

export function changeRemark(remark: Schemas['Remark'], what: Schemas['PatchedRemarkChangeRequest']) {
  const path = { params: { path: { remark: remark.id } } };
  return written(
    (version) => take(api.PATCH('/api/remarks/{remark}', { ...path, body: { ...what, version } })),
    remark.version,
    what
  );
}

export function dropRemark(remark: number) {
  return api.DELETE('/api/remarks/{remark}', { params: { path: { remark } } });
}

export function addRemark(submission: number, words: string, path: string, line: number | null) {
  return take(
    api.POST('/api/submissions/{submission}/remarks', {
      params: { path: { submission } },
      body: { words, path, line }
    })
  );
}

export function setMark(submission: number, mark: Schemas['Mark'], level: number | null, reason: string) {
  const path = { params: { path: { submission, criterion: mark.criterion } } };
  return written(
    (version) =>
      take(
        api.PUT('/api/submissions/{submission}/marks/{criterion}', {
          ...path,
          body: { level, reason, version }
        })
      ),
    mark.version,
    { level, reason }
  );
}

export function setReviewed(submission: number, reviewed: boolean) {
  return take(
    api.PUT('/api/submissions/{submission}/reviewed', {
      params: { path: { submission } },
      body: { reviewed }
    })
  );
}
