import { redirect } from '@sveltejs/kit';

/** Where a scanned label leads: to its unit. */
export function load({ params }: { params: { label: string } }) {
	redirect(307, `/units/${encodeURIComponent(params.label)}`);
}
