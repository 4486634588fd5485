import { lazy, Suspense } from 'react';

const BeatsScreen = lazy(async () => ({
  default: (await import('../screens/beats/BeatsScreen')).BeatsScreen,
}));

export default function Beats() {
  return (
    <Suspense fallback={null}>
      <BeatsScreen />
    </Suspense>
  );
}
