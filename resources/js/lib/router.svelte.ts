/** The address as state; links go through go(). */
class Router {
    path = $state(location.pathname);

    constructor() {
        addEventListener('popstate', () => (this.path = location.pathname));
    }

    go(path: string, replace = false): void {
        if (path === this.path) return;
        history[replace ? 'replaceState' : 'pushState'](null, '', path);
        this.path = path;
    }
}

export const router = new Router();
