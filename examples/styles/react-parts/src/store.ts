import { useState } from 'react';
export function useStore() { const [toast, set] = useState<string | null>(null); return { toast, showToast: set }; }
