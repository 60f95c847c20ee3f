import type { Metadata } from 'next';
import { Notice } from '@/ui/waiting';

export const metadata: Metadata = { title: 'No such page' };

export default function NoSuchPage() {
  return <Notice sentence="There is no such page." />;
}
