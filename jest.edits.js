/** In tests the edits are at hand from the start. */
require('./src/state/doc').giveEdits(require('./core/edit/edits'));
