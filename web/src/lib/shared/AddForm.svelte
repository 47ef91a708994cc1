<script lang="ts">
	import type { Problem } from '$lib/api';
	import { faultAt } from './forms';
	import ProblemNote from './ProblemNote.svelte';

	interface Props {
		what: string;
		/** What it does, where it adds nothing. */
		action?: string;
		fields: {
			key: string;
			name: string;
			hint?: string;
			choices?: string[];
			secret?: boolean;
			date?: boolean;
		}[];
		/** Unfolded at first. */
		open?: boolean;
		add: (values: Record<string, string>) => Promise<Problem | null>;
	}
	let { what, action, fields, open = false, add }: Props = $props();

	const id = $props.id();
	const article = $derived('aeiou'.includes(what.charAt(0).toLowerCase()) ? 'an' : 'a');
	let values = $state<Record<string, string>>({});
	let problem = $state.raw<Problem | null>(null);
	const elsewhere = $derived(problem && !fields.some((field) => faultAt(problem, field.key)));

	async function submit(event: SubmitEvent) {
		event.preventDefault();
		problem = await add({ ...values });
		if (!problem) values = {};
	}
</script>

<details class="mt-2" {open}>
	<summary class="btn">{action ?? `Add ${article} ${what}`}</summary>
	<form class="mt-2 grid gap-x-3 sm:grid-cols-2" onsubmit={submit}>
		{#each fields as field (field.key)}
			{@const fault = faultAt(problem, field.key)}
			<div>
				<label class="font-semibold" for="{id}-{field.key}">{field.name}</label>
				{#if field.choices}
					<select id="{id}-{field.key}" class="entry select w-full" bind:value={values[field.key]}>
						{#each field.choices as choice (choice)}<option>{choice}</option>{/each}
					</select>
				{:else}
					<input
						id="{id}-{field.key}"
						class="entry input w-full"
						type={field.secret ? 'password' : field.date ? 'date' : 'text'}
						autocomplete={field.secret ? 'new-password' : 'off'}
						placeholder={field.hint}
						bind:value={values[field.key]}
					/>
				{/if}
				<p class="min-h-6 text-sm text-error">{fault ?? ''}</p>
			</div>
		{/each}
		<div class="sm:col-span-2">
			{#if elsewhere}<ProblemNote {problem} />{/if}
			<button class="btn btn-primary">{action ?? `Add the ${what}`}</button>
		</div>
	</form>
</details>
