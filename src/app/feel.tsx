import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).FeelScreen;

export default function Feel() {
  return <Later of={screen} />;
}
