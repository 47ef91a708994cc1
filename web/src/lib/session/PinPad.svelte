<script lang="ts">
	import Delete from '@lucide/svelte/icons/delete';

	interface Props {
		/** What is asked for, for the one who looks and the one who listens. */
		label: string;
		fault?: string | null;
		busy?: boolean;
		enter: string;
		onEnter: (pin: string) => void;
	}
	let { label, fault = null, busy = false, enter, onEnter }: Props = $props();

	const id = $props.id();
	const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];
	let typed = $state('');
	let letters = $state(false);
	let field = $state<HTMLInputElement>();

	$effect(() => field?.focus());
	$effect(() => {
		// A refused one is typed anew.
		if (fault) typed = '';
	});

	function press(digit: string) {
		typed += digit;
		field?.focus();
	}

	function submit(event: SubmitEvent) {
		event.preventDefault();
		if (typed && !busy) onEnter(typed);
	}
</script>

<form class="w-full max-w-80" onsubmit={submit} data-form>
	<label class="font-semibold" for={id}>{label}</label>
	<input
		{id}
		bind:this={field}
		bind:value={typed}
		class={['entry input w-full text-center text-2xl tracking-[0.4em]', fault && 'input-error']}
		type="password"
		inputmode={letters ? 'text' : 'none'}
		autocomplete="off"
		maxlength="128"
		aria-invalid={fault ? 'true' : undefined}
		aria-describedby="{id}-fault"
	/>
	<p id="{id}-fault" class="min-h-7 font-semibold text-error first-letter:uppercase" role="status">
		{fault ?? ''}
	</p>
	<div class="grid grid-cols-3 gap-2">
		{#each KEYS as key (key)}
			<button type="button" class="btn h-14 text-2xl" onclick={() => press(key)}>{key}</button>
		{/each}
		<button
			type="button"
			class="btn h-14"
			aria-label="Delete the last digit"
			onclick={() => ((typed = typed.slice(0, -1)), field?.focus())}
			><Delete size={24} aria-hidden="true" /></button
		>
		<button type="button" class="btn h-14 text-2xl" onclick={() => press('0')}>0</button>
		<button class="btn h-14 btn-primary" disabled={!typed || busy}>{enter}</button>
	</div>
	<button
		type="button"
		class="btn mt-2 w-full btn-ghost"
		onclick={() => ((letters = !letters), field?.focus())}
		>{letters ? 'Digits are enough' : 'I have a password: show the keyboard'}</button
	>
</form>
