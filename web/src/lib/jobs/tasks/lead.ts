/** What all labels begin with, up to and with its comma; empty where they have nothing in common. */
export function leadOf(labels: string[]): string {
	const lead = /^.*?, /.exec(labels[0] ?? '')?.[0] ?? '';
	return lead && labels.every((label) => label.startsWith(lead) && label.length > lead.length) ? lead : '';
}
