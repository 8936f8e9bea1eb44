/** Whether the server answers. Every call says how it went; whoever shows it looks here. */
class Link {
    away = $state(false);
    /** Kinds of work that nobody takes at present. */
    idle = $state.raw<string[]>([]);
    /** False where files of other formats cannot be read, since there is no box to read them in. */
    box = $state(true);

    heard(answered: boolean): void {
        this.away = !answered;
    }
}

export const link = new Link();
