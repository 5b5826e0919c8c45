import { Nav } from '@/components/nav';
import './globals.css';
export default function Root({ children }: { children: React.ReactNode }) { return <html><body><Nav />{children}</body></html>; }
