<script lang="ts">
	import { goto } from '$app/navigation';
	import { api, ask, type Problem, type Schemas } from '$lib/api';
	import { AddForm } from '$lib/shared';

	let sheets = $state.raw<Schemas['SheetListed'][]>([]);
	$effect(() => {
		void ask(api.GET('/api/sheets')).then((answer) => (sheets = answer.data ?? []));
	});

	/** Makes it known and opens its page, where its label is. */
	async function add(values: Record<string, string>): Promise<Problem | null> {
		const answer = await ask(
			api.POST('/api/units', {
				body: {
					sheet_key: sheets.find((sheet) => sheet.name === values.sheet_key)?.key ?? '',
					serial: values.serial ?? '',
					name: values.name ?? '',
					customer: values.customer ?? ''
				}
			})
		);
		if (answer.data) await goto(`/units/${answer.data.label}`);
		return answer.problem;
	}
</script>

<AddForm
	what="tool or unit"
	fields={[
		{ key: 'sheet_key', name: 'Build sheet', choices: ['', ...sheets.map((sheet) => sheet.name)] },
		{ key: 'serial', name: 'Serial number', hint: 'as stamped' },
		{ key: 'name', name: 'Name', hint: 'what it is, and which' },
		{ key: 'customer', name: 'Customer', hint: 'owner or customer' }
	]}
	{add}
/>
