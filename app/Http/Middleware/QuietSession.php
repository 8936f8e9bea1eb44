<?php

declare(strict_types=1);

namespace App\Http\Middleware;

use Illuminate\Contracts\Session\Session;
use Illuminate\Http\Request;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Session\NullSessionHandler;
use Illuminate\Session\Store;
use Throwable;

/**
 * Sessions that are written when something of them has changed, or once a minute: a page that looks many times a second does not
 * make the database commit as often.
 */
final class QuietSession extends StartSession
{
    private const SECONDS = 60;

    private const WRITTEN = '_written_at';

    private string $before = '';

    /**
     * @param  Session  $session
     */
    protected function startSession(Request $request, $session): Session
    {
        try {
            $started = parent::startSession($request, $session);
        } catch (Throwable $e) {
            // It could not be read, so it must not be replaced either: who only asks who is there, as the report of this error does,
            // would be signed in again by the long-lived cookie, and that removes the session which the page goes on with.
            $session instanceof Store && $session->setHandler(new NullSessionHandler);
            throw $e;
        }
        $this->before = self::stamp($started);

        return $started;
    }

    /**
     * @param  Session  $session
     */
    protected function storeCurrentUrl(Request $request, $session): void
    {
        // Nobody is ever sent back to a call.
        if (! $request->is('api/*', 'internal/*')) {
            parent::storeCurrentUrl($request, $session);
        }
    }

    /**
     * @param  Request  $request
     */
    protected function saveSession($request): void
    {
        $session = $request->session();
        $written = $session->get(self::WRITTEN);
        if ($request->isMethod('GET') && is_int($written) && $written > time() - self::SECONDS && self::stamp($session) === $this->before) {
            return;
        }
        $session->put(self::WRITTEN, time());
        parent::saveSession($request);
    }

    private static function stamp(Session $session): string
    {
        $all = $session->all();
        unset($all['_previous'], $all['_flash'], $all[self::WRITTEN]);

        return $session->getId().serialize($all);
    }
}
