import { Me, SignedIn, type Person } from './answers';
import { call, tell } from './api';

class Session {
    person = $state<Person | null>(null);
    known = $state(false);

    async load(): Promise<void> {
        try {
            this.person = (await call(Me, 'GET', 'me')).person;
        } finally {
            this.known = true;
        }
    }

    async enter(form: { email: string; password: string }): Promise<void> {
        this.person = (await call(SignedIn, 'POST', 'sign-in', form)).person;
    }

    async leave(): Promise<void> {
        await tell('POST', 'sign-out');
        this.person = null;
    }
}

export const session = new Session();
