<script lang="ts">
	import QrCode from '@lucide/svelte/icons/qr-code';
	import { goto } from '$app/navigation';
	import { api, ask, type Problem } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';

	let typed = $state('');
	let problem = $state.raw<Problem | null>(null);
	const fault = $derived(faultAt(problem, 'label'));

	/** A reader types the link of the code and Enter; a hand types what stands beside it. */
	async function open() {
		const label = typed.trim();
		if (!label) return;
		const last = label.split(/[?#]/)[0]?.replace(/\/+$/, '').split('/').at(-1) ?? label;
		const answer = await ask(api.GET('/api/units/{label}', { params: { path: { label: last } } }));
		problem = answer.problem;
		if (answer.data) await goto(`/units/${answer.data.unit.label}`);
	}
	const focus = (node: HTMLElement) => node.focus();
</script>

<form
	class="flex flex-wrap items-end gap-2"
	onsubmit={(event) => {
		event.preventDefault();
		void open();
	}}
>
	<div class="min-w-64 flex-1">
		<label class="mb-1 block font-semibold" for="label">Scan a label, or type the text beside its code</label>
		<input
			id="label"
			class={['entry input w-full font-mono text-xl', fault && 'input-error']}
			autocomplete="off"
			spellcheck="false"
			maxlength="200"
			placeholder="K7QF-3ZTM24"
			bind:value={typed}
			aria-invalid={fault ? 'true' : undefined}
			{@attach focus}
		/>
	</div>
	<button class="btn btn-primary min-h-12"><QrCode size={20} aria-hidden="true" />Open</button>
</form>
{#if fault}<p class="text-error" role="alert">{fault}</p>{:else}<ProblemNote {problem} />{/if}
