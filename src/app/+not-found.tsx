import { Link } from 'expo-router';

export default function NotFound() {
  return (
    <p style={{ padding: 16 }}>
      There is no such screen. <Link href="/">Go to the pattern</Link>
    </p>
  );
}
