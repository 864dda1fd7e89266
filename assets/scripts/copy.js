/** Copies a text that stands on the page; where the browser has no clipboard for pages, it is selected to be copied. */
export function copied() {
    return {
        isDone: false,
        get isOpen() {
            return !this.isDone;
        },
        async copy() {
            const text = this.$refs.text;
            try {
                await navigator.clipboard.writeText(text.textContent.trim());
            } catch {
                window.getSelection().selectAllChildren(text);
                document.execCommand('copy');
            }
            this.isDone = true;
        },
    };
}
