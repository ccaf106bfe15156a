// What changes a site, and what is looked up in its journal: by the commands of all chapters, larger than what the first view needs.

export { noteEdit, redoEdit, undoEdit } from '../../core/document/edit-history.ts';
export { emptySite } from '../../core/document/empty-site.ts';
export { applyCommand } from '../../core/document/site-commands.ts';
export { createEvidenceIndexer } from '../../core/evidence/evidence-index.ts';
