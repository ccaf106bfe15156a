export { CardsSlip } from './cards-slip.tsx';
export { GuideDialog } from './guide-dialog.tsx';
export { keepCards } from './model-library.ts';
export { ModelPicker } from './model-picker.tsx';
