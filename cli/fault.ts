/** What a person gave is at fault: told in one sentence, with exit code 1. */
export class InputFault extends Error {}

/** A command that was used wrongly: told in one sentence, with exit code 2. */
export class UsageFault extends Error {}
