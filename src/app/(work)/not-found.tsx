import { NotThere } from '@/features/frame/not-there';

export default function NotFound() {
  return <NotThere />;
}
