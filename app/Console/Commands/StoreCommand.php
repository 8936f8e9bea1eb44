<?php

declare(strict_types=1);

namespace App\Console\Commands;

use App\Assets\BlobStore;
use App\Assets\HouseKit;
use App\Assets\StoreCheck;
use App\Exceptions\UserError;

final class StoreCommand extends ReelCommand
{
    protected $signature = 'reel:store {--check : verify every file, say what is broken and what uses it, make files of the house again} {--json}';

    protected $description = 'Look after the store';

    protected function work(): int
    {
        if ($this->option('check') !== true) {
            throw new UserError('store.what', 'Nothing was asked for.', 'Use reel:store --check.');
        }
        $check = app(StoreCheck::class);
        $broken = $check->broken(fn (int $n) => $n % 500 === 0 ? $this->say("{$n} files looked at") : null);
        if (array_filter($broken, static fn (array $b): bool => $b['house']) !== []) {
            $this->say('Making the house kit again');
            app(HouseKit::class)->install(again: true);
        }
        $left = array_values(array_filter($broken, static fn (array $b): bool => ! app(BlobStore::class)->isSound($b['hash'])));
        $lines = array_map(
            static fn (array $b): string => sprintf(
                '%s: %s; used by %s.',
                substr($b['hash'], 0, 12),
                $b['what'],
                $b['uses'] === [] ? 'nothing' : implode(', ', $b['uses']),
            ),
            $left,
        );
        $swept = $check->sweep();

        $this->answer([
            'looked' => $check->looked, 'broken' => count($broken), 'restored' => count($broken) - count($left), 'left' => $left,
            'swept' => $swept,
        ], [
            sprintf(
                '%d files looked at, %d broken, %d restored, %d half-written ones of killed writes removed.',
                $check->looked,
                count($broken),
                count($broken) - count($left),
                $swept,
            ),
            ...$lines,
        ]);

        return $left === [] ? 0 : 2;
    }
}
