export default () => <audio src="/peal.mp3" />;
