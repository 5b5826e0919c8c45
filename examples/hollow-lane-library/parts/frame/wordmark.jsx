export const Wordmark = () => <a href="/" class="spine">Hollow Lane Library</a>;
