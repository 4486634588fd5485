import { Later } from '../ui/Later';

const screen = async () => (await import('../screens/later')).ExportScreen;

export default function Export() {
  return <Later of={screen} />;
}
