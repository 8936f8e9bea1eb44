<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Scenes\WarmHouse;
use Illuminate\Console\Command;
use Illuminate\Support\Facades\Log;
use React\EventLoop\Loop;
use React\Socket\ConnectionInterface;
use React\Socket\UnixServer;
use RuntimeException;
use Throwable;

/** One question a connection, one line of JSON each way, on a socket that only this installation's user may open. */
final class WarmCommand extends Command
{
    protected $signature = 'reel:warm';

    protected $description = 'Settles scenes for the web server of this machine, and remembers what it settled last';

    private const LONGEST_QUESTION = 4_000_000;

    /** Bytes beyond which it makes way for a fresh one. */
    private const MOST_MEMORY = 700_000_000;

    public function handle(WarmHouse $house): int
    {
        ini_set('memory_limit', '1G');
        $socket = config('reel.warm');
        if (! is_string($socket)) {
            throw new RuntimeException('REEL_RUN says in which folder the socket is to lie.');
        }
        // It asks nobody else.
        config(['reel.warm' => null]);
        @unlink($socket);
        $server = new UnixServer("unix://{$socket}");
        chmod($socket, 0o600);
        $server->on('connection', function (ConnectionInterface $line) use ($house): void {
            $heard = '';
            $line->on('data', function (string $more) use ($line, &$heard, $house): void {
                $heard .= $more;
                if (str_contains($heard, "\n") || strlen($heard) > self::LONGEST_QUESTION) {
                    $line->end($this->answer($house, $heard)."\n");
                    $this->makeWay();
                }
            });
        });
        Loop::run();

        return self::SUCCESS;
    }

    private function answer(WarmHouse $house, string $heard): string
    {
        try {
            $what = json_decode($heard, true, 16, JSON_THROW_ON_ERROR);

            return json_encode($house->answer(is_array($what) ? $what : []), JSON_THROW_ON_ERROR);
        } catch (Throwable $e) {
            // Whoever asked does it without, and tells what is wrong with it.
            Log::warning("The warm process could not do that: {$e->getMessage()}");

            return '{"done":false}';
        }
    }

    private function makeWay(): void
    {
        if (memory_get_usage(true) > self::MOST_MEMORY) {
            Loop::futureTick(static fn () => Loop::stop());
        }
    }
}
