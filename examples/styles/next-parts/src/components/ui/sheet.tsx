'use client';
export function Sheet(p: any) { return p.children; } export function SheetTrigger(p: any) { return p.children; } export function SheetContent(p: any) { return p.children; }
