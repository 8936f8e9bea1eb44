import { call } from './api';

export interface Person {
    id: number;
    name: string;
    email: string;
}

class Session {
    person = $state<Person | null>(null);
    known = $state(false);

    async load(): Promise<void> {
        try {
            this.person = (await call<{ person: Person | null }>('GET', 'me')).person;
        } finally {
            this.known = true;
        }
    }

    async enter(form: { email: string; password: string }): Promise<void> {
        this.person = (await call<{ person: Person }>('POST', 'sign-in', form)).person;
    }

    async leave(): Promise<void> {
        await call('POST', 'sign-out');
        this.person = null;
    }
}

export const session = new Session();
