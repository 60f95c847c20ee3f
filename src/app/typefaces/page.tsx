import type { Metadata } from 'next';
import { TypefacesScreen } from '@/faces/typefaces-screen';

export const metadata: Metadata = { title: 'Typefaces' };

export default function Page() {
  return <TypefacesScreen />;
}
