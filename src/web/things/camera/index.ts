import { lazy } from 'react';

export { AddCameraForm } from './add-camera-form.tsx';

export const CameraDialog = lazy(async () => ({ default: (await import('./camera-dialog.tsx')).CameraDialog }));
