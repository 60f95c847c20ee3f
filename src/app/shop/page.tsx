import type { Metadata } from 'next';
import { ShopScreen } from '@/shop/shop-screen';

export const metadata: Metadata = { title: 'Shop' };

export default function Page() {
  return <ShopScreen />;
}
