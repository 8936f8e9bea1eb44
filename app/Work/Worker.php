<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Support\Facades\DB;

/**
 * Who works: each worker is a row, kept fresh by the pulse of its machine. What a worker had when it ended is free again for
 * others at once, and not only when its time has run out.
 */
final class Worker
{
    /** A machine that has not been heard of for so long is gone. */
    public const LOST_SECONDS = 12;

    private static ?string $name = null;

    /** Of this process; null: it is no worker under a name. */
    public static function name(): ?string
    {
        return self::$name;
    }

    public static function host(): string
    {
        $host = getenv('REEL_HOST');

        return $host === false || $host === '' ? (string) gethostname() : $host;
    }

    /** This process takes jobs of these queues from now on. What one of its name had before is free. */
    public static function begin(string $queues): void
    {
        $part = getenv('REEL_PART');
        self::$name = mb_substr(self::host().'/'.($part === false || $part === '' ? 'worker-'.getmypid() : strtok($part, '@')), 0, 160);
        self::release(self::$name);
        DB::table('workers')->upsert([
            'name' => self::$name, 'host' => self::host(), 'pid' => (int) getmypid(), 'started' => self::startOf((int) getmypid()),
            'queues' => $queues, 'seen_at' => DB::raw('CURRENT_TIMESTAMP'),
        ], ['name']);
    }

    /** @return int jobs that are free again */
    public static function release(string $name): int
    {
        return DB::table('jobs')->where('reserved_by', $name)->update(['reserved_at' => null, 'reserved_by' => null]);
    }

    /** Keeps this machine's workers fresh, and lets go what dead ones had, here and on machines that are gone. */
    public static function pulse(): void
    {
        foreach (DB::table('workers')->get() as $w) {
            if ($w->host === self::host()) {
                $lives = self::startOf((int) $w->pid) === (int) $w->started;
                $lives
                    ? DB::table('workers')->where('name', $w->name)->update(['seen_at' => DB::raw('CURRENT_TIMESTAMP')])
                    : self::bury((string) $w->name, (int) $w->pid);
            } elseif (DB::table('workers')->where('name', $w->name)->whereRaw(
                'seen_at < CURRENT_TIMESTAMP - INTERVAL ? SECOND',
                [self::LOST_SECONDS],
            )->exists()) {
                self::bury((string) $w->name, (int) $w->pid);
            }
        }
        // A job whose worker has no row any more is nobody's.
        DB::table('jobs')->whereNotNull('reserved_by')->whereNotIn('reserved_by', DB::table('workers')->select('name'))
            ->update(['reserved_at' => null, 'reserved_by' => null]);
    }

    private static function bury(string $name, int $pid): void
    {
        // One that has begun anew under the same name in the meantime stays.
        if (DB::table('workers')->where('name', $name)->where('pid', $pid)->delete() > 0) {
            self::release($name);
        }
    }

    /** @return array<string, bool> kind of work to whether somebody takes it */
    public static function taken(): array
    {
        $all = DB::table('workers')->whereRaw('seen_at >= CURRENT_TIMESTAMP - INTERVAL ? SECOND', [self::LOST_SECONDS])->pluck('queues')
            ->flatMap(static fn (mixed $q): array => explode(',', (string) $q))->flip()->all();
        $out = [];
        foreach (['desk', 'intake', 'voice', 'pictures', 'render'] as $queue) {
            $out[$queue] = isset($all[$queue]);
        }

        return $out;
    }

    /** When a process was started, in ticks since the machine was (proc(5), field 22); 0: there is none. */
    private static function startOf(int $pid): int
    {
        $stat = @file_get_contents("/proc/{$pid}/stat");
        if ($stat === false) {
            return 0;
        }
        $fields = explode(' ', substr($stat, (int) strrpos($stat, ')') + 2));

        return ($fields[0] ?? 'Z') === 'Z' ? 0 : (int) ($fields[19] ?? 0);
    }
}
