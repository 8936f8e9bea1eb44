<?php

declare(strict_types=1);

namespace Tests;

use App\Models\Scene;
use App\Models\User;
use App\Renders\Browser;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Tests\Browser\Pages\WorkspacePage;

/** Drives the built front end in headless Chromium against the running server. Waits on state, never on time. */
abstract class BrowserCase extends TestCase
{
    /** @var list<Browser> */
    private array $browsers = [];

    /** @param  list<string>  $more  switches of Chromium */
    protected function open(string $path = '/', array $more = []): RemoteWebDriver
    {
        $browser = Browser::open(1280, 943, $more);
        $this->browsers[] = $browser;
        $browser->driver->get(self::url($path));

        return $browser->driver;
    }

    public static function url(string $path): string
    {
        return rtrim((string) getenv('APP_URL'), '/').$path;
    }

    /** Waits until an address of the site answers; false: it does not within a minute. */
    public function answers(string $address): bool
    {
        for ($end = microtime(true) + 60; microtime(true) < $end; usleep(200_000)) {
            if (@file_get_contents($address) !== false) {
                return true;
            }
        }

        return false;
    }

    protected function workspace(RemoteWebDriver $driver): WorkspacePage
    {
        return new WorkspacePage($driver);
    }

    protected function signIn(RemoteWebDriver $driver, string $email, string $password, string $path): void
    {
        $page = $this->workspace($driver);
        $page->fill('#email', $email);
        $page->fill('#password', $password);
        $page->click('button[type=submit]');
        // Going on before the answer is here would take the sign-in back.
        $page->until(static fn (): bool => $page->count('#password') === 0, 'to be signed in');
        $driver->get(self::url($path));
    }

    /**
     * The workspace of a scene, opened by one of its people.
     *
     * @param  list<string>  $more  switches of Chromium
     * @return array{WorkspacePage, RemoteWebDriver}
     */
    public function desk(User $user, Scene $scene, array $more = []): array
    {
        $driver = $this->open(more: $more);
        $this->signIn($driver, $user->email, 'a long enough word', "/scenes/{$scene->id}");

        return [$this->workspace($driver), $driver];
    }

    /** A failed test leaves its pictures and console logs. */
    protected function tearDown(): void
    {
        $failed = $this->status()->isFailure() || $this->status()->isError();
        foreach ($this->browsers as $n => $b) {
            if ($failed) {
                $base = storage_path('test/'.preg_replace('/[^a-z0-9]+/i', '-', $this->name()).'-'.$n);
                @file_put_contents("{$base}.png", $b->driver->takeScreenshot());
                @file_put_contents("{$base}.log", json_encode($b->driver->manage()->getLog('browser'), JSON_PRETTY_PRINT));
            }
            $b->close();
        }
        $this->browsers = [];
        parent::tearDown();
    }
}
