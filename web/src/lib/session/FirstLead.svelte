<script lang="ts">
	import type { Problem, Schemas } from '$lib/api';
	import { faultAt, ProblemNote } from '$lib/shared';
	import { session } from './session.svelte';

	/** `names`: people of a version before there were PINs; one of them may be the lead. */
	let { names }: { names: Schemas['NameOut'][] } = $props();
	let name = $state('');
	let pin = $state('');
	let again = $state('');
	let problem = $state.raw<Problem | null>(null);
	const differ = $derived(again !== '' && pin !== again);

	async function begin(event: SubmitEvent) {
		event.preventDefault();
		if (pin !== again) return;
		problem = await session.first({ name, pin });
	}
</script>

<form class="mx-auto max-w-xl" onsubmit={begin} data-form>
	<h1 class="mb-1 text-3xl font-extrabold">First start</h1>
	<p class="mb-3">
		Nobody can sign in here yet. The workshop lead starts: enter your name and a PIN of six digits, or a
		password of ten characters or more. You then add the others under Workshop.
	</p>
	<label class="block font-semibold" for="first-name">Your name</label>
	<input
		id="first-name"
		class="entry input w-full"
		list="first-names"
		autocomplete="off"
		maxlength="80"
		bind:value={name}
	/>
	<datalist id="first-names">
		{#each names as name (name.key)}<option value={name.name}></option>{/each}
	</datalist>
	<p class="min-h-6 text-sm text-error">{faultAt(problem, 'name') ?? ''}</p>
	<div class="grid gap-3 sm:grid-cols-2">
		<div>
			<label class="block font-semibold" for="first-pin">PIN or password</label>
			<input
				id="first-pin"
				class="entry input w-full"
				type="password"
				autocomplete="new-password"
				bind:value={pin}
			/>
		</div>
		<div>
			<label class="block font-semibold" for="first-again">Repeat</label>
			<input
				id="first-again"
				class="entry input w-full"
				type="password"
				autocomplete="new-password"
				bind:value={again}
			/>
		</div>
	</div>
	<p class="min-h-6 text-sm text-error" role="status">
		{faultAt(problem, 'pin') ?? (differ ? 'The two entries differ.' : '')}
	</p>
	{#if problem && !problem.errors.length}<ProblemNote {problem} />{/if}
	<button class="btn btn-primary" disabled={!name.trim() || !pin || pin !== again}>Begin</button>
</form>
