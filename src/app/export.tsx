import { lazy, Suspense } from 'react';

const ExportScreen = lazy(async () => ({
  default: (await import('../screens/later')).ExportScreen,
}));

export default function Export() {
  return (
    <Suspense fallback={null}>
      <ExportScreen />
    </Suspense>
  );
}
