import type { Metadata } from 'next';
import Link from 'next/link';
import { Notice } from '@/ui/waiting';

export const metadata: Metadata = { title: 'No such page' };

export default function NoSuchPage() {
  return (
    <Notice sentence="There is no such page.">
      <Link className="btn btn-primary" href="/">
        All jobs
      </Link>
    </Notice>
  );
}
