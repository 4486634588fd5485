import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).GroovesScreen;

export default function Grooves() {
  return <Later of={screen} />;
}
