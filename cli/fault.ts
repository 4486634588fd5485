/** What a person gave is at fault: told in one sentence, with exit code 1. */
export class InputFault extends Error {}
