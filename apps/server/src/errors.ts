/** Every error a person or a program can be answered with: code, status, and the sentence. */
export const ERRORS = {
  not_signed_in: [401, 'Sign in to go on.'],
  key_refused: [401, 'This key opens nothing here: it was revoked, or is of another workspace.'],
  sign_in_refused: [401, 'This e-mail address and password do not belong together.'],
  too_many_attempts: [429, 'Those were many attempts with a wrong password. Try again in %s.'],
  password_refused: [403, 'That is not your present password. Nothing was changed.'],
  link_spent: [
    403,
    'This link makes no account any more: there is one, or Pandecta was started again since and printed a newer link.',
  ],
  forged: [403, 'This request did not come from a page of Pandecta. Reload the page and try again.'],
  not_a_member: [404, 'There is no such workspace, or you are not a member of it.'],
  not_allowed: [403, 'Your role here does not allow this.'],
  invalid: [400, 'Invalid request: %s'],
  no_such_source: [404, 'There is no such source in this workspace.'],
  no_such_file: [404, 'There is no such file in this workspace.'],
  file_gone: [409, 'The file “%s” was removed for good: no source had held it for as long as the bin keeps things.'],
  no_such_collection: [404, 'There is no such collection in this workspace.'],
  not_saved: [404, 'There is no such saved search or folder in this workspace, or it is someone else’s own.'],
  no_such_tag: [404, 'There is no such tag in this workspace.'],
  no_such_label: [404, 'There is no such label in this workspace.'],
  no_such_sense: [404, 'There is no such sense in this workspace.'],
  sense_used: [409, 'The sense “%s” is that of %s. Retire it, or merge it into another; nothing was removed.'],
  no_such_mark: [404, 'There is no such mark in this workspace.'],
  no_such_picture: [404, 'This mark has no picture: it is no region of a page that can be drawn.'],
  no_such_gloss: [404, 'There is no such gloss in this workspace.'],
  no_such_note: [404, 'There is no such note in this workspace.'],
  no_such_heading: [404, 'There is no such heading in this workspace.'],
  no_such_outline: [404, 'There is no such outline in this workspace.'],
  heading_used: [409, 'The heading “%s” is that of %s. Merge it into another; nothing was removed.'],
  no_such_key: [404, 'There is no such key of yours in this workspace.'],
  no_such_import: [404, 'There is no such import in this workspace.'],
  not_waiting: [409, 'This does not wait in the intake any more: someone took it in, joined it or set it aside.'],
  no_such_catalogue: [404, 'There is no such catalogue in this workspace.'],
  no_such_search: [404, 'There is no such search in this workspace.'],
  no_such_watch: [404, 'There is no such watch in this workspace.'],
  no_such_job: [404, 'There is no such job in this workspace.'],
  not_failed: [409, 'This job is still running or has finished.'],
  no_such_change: [404, 'There is no such change in this workspace.'],
  no_such_page: [404, 'There is nothing at this address.'],
  no_such_style: [404, 'There is no style named “%s” among those installed.'],
  style_failed: [422, 'The style “%s” could not be used: %s'],
  key_taken: [409, 'The citation key “%s” is that of %s. Nothing was saved; choose another.'],
  stale_edit: [409, '%s changed %s since you opened it. Nothing of yours was saved.'],
  not_yours: [403, 'This is another member’s own; only they can take it back.'],
  nothing_to_undo: [409, 'There is nothing of yours left to undo.'],
  nothing_to_redo: [409, 'There is nothing to do again.'],
  undo_conflict: [409, 'This cannot be undone any more: %s'],
  already_undone: [409, 'This change is already undone.'],
  change_goes_on: [
    409,
    'A change of yours to many sources is still going on. Wait for its end, or cancel it under Jobs; then undo.',
  ],
  circular: [409, 'A collection cannot stand under itself or under what it holds.'],
  too_many: [400, 'This can be done with at most %s sources at once; here are %s.'],
  bin_grew: [409, 'Others moved sources to the bin meanwhile: there are %s now. Nothing was removed; look again.'],
  no_files: [400, 'No file came with the request.'],
  file_too_large: [413, 'A file is larger than %s; nothing was kept.'],
  too_many_at_once: [429, 'Too many requests of yours wait already. Let some of them end, and send this again.'],
  busy: [503, 'Someone else is writing to the same sources just now. Nothing was changed; try again in a moment.'],
  too_slow: [503, 'This question takes too long to answer. Add a word or narrow it.'],
  unavailable: [503, 'The database does not answer just now. Nothing was changed; try again in a moment.'],
  body_too_large: [413, 'The request is larger than the %s this may be; nothing was kept.'],
  too_late: [408, 'The request did not arrive in time; nothing was kept.'],
  disk_full: [507, 'The disk of the server is full. Nothing was changed; tell whoever runs it.'],
  failed: [500, 'Something went wrong on the server. Nothing was changed.'],
} as const satisfies Record<string, readonly [number, string]>;

export type ErrorCode = keyof typeof ERRORS;

/** An error whose sentence is meant for the person; anything else becomes `failed`. */
export class Refusal extends Error {
  readonly status: number;

  /** What a program needs beside the sentence: members of the problem document (RFC 9457, 3.2). */
  more: Record<string, unknown> = {};

  /** After how many seconds it is worth asking again. */
  retryAfter: number | undefined;

  constructor(
    readonly code: ErrorCode,
    ...parts: string[]
  ) {
    let i = 0;
    super(ERRORS[code][1].replace(/%s/g, () => parts[i++] ?? ''));
    this.status = ERRORS[code][0];
    if (this.status === 503) this.retryAfter = 5;
    else if (code === 'too_many_at_once') this.retryAfter = 2;
  }
}
