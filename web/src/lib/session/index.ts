export { session } from './session.svelte';
export { default as PersonButton } from './PersonButton.svelte';
export { default as SignatureDialog } from './SignatureDialog.svelte';
export { Signature } from './signature.svelte';
export { default as SignIn } from './SignIn.svelte';
