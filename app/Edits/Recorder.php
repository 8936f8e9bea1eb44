<?php

declare(strict_types=1);

namespace App\Edits;

use Illuminate\Support\Facades\DB;

/**
 * Every change of a row goes through here and leaves its image before and after. The inverse of any edit is these images
 * the other way round, so no command can have a wrong one.
 *
 * @phpstan-type Row array<string, mixed>
 * @phpstan-type Change array{table: string, id: int, before: Row|null, after: Row|null}
 */
final class Recorder
{
    private const MOVES_BY_ITSELF = ['scenes' => ['revision' => 0, 'updated_at' => 0], 'productions' => ['updated_at' => 0]];

    /** @var list<Change> */
    private array $changes = [];

    /** @param  Row  $values */
    public function insert(string $table, array $values): int
    {
        $id = (int) DB::table($table)->insertGetId($values);
        $this->changes[] = ['table' => $table, 'id' => $id, 'before' => null, 'after' => $this->row($table, $id)];

        return $id;
    }

    /** @param  Row  $values */
    public function update(string $table, int $id, array $values): void
    {
        $before = $this->row($table, $id);
        DB::table($table)->where('id', $id)->update($values);
        $after = $this->row($table, $id);
        if ($before !== $after) {
            $this->changes[] = ['table' => $table, 'id' => $id, 'before' => $before, 'after' => $after];
        }
    }

    public function delete(string $table, int $id): void
    {
        $before = $this->row($table, $id);
        DB::table($table)->where('id', $id)->delete();
        $this->changes[] = ['table' => $table, 'id' => $id, 'before' => $before, 'after' => null];
    }

    /**
     * Puts back what was before some changes.
     *
     * @param  list<Change>  $changes
     */
    public function revert(array $changes): void
    {
        foreach (array_reverse($changes) as $c) {
            if ($c['before'] === null) {
                $this->delete($c['table'], $c['id']);
            } elseif ($c['after'] === null) {
                DB::table($c['table'])->insert($c['before']);
                $this->changes[] = [
                    'table' => $c['table'], 'id' => $c['id'], 'before' => null, 'after' => $this->row($c['table'], $c['id']),
                ];
            } else {
                $this->update($c['table'], $c['id'], $c['before']);
            }
        }
    }

    /**
     * Makes the changes again that were made before and rolled back: rows get the numbers that they had.
     *
     * @param  list<Change>  $changes
     */
    public function repeat(array $changes): void
    {
        foreach ($changes as $c) {
            if ($c['after'] === null) {
                DB::table($c['table'])->where('id', $c['id'])->delete();
            } elseif ($c['before'] === null) {
                DB::table($c['table'])->insert($c['after']);
            } else {
                DB::table($c['table'])->where('id', $c['id'])->update($c['after']);
            }
        }
    }

    /**
     * True when every row still is as some changes left it.
     *
     * @param  list<Change>  $changes
     */
    public function stillAsLeft(array $changes): bool
    {
        $last = [];
        foreach ($changes as $c) {
            $last["{$c['table']} {$c['id']}"] = $c;
        }
        foreach ($last as $c) {
            if ($this->row($c['table'], $c['id']) != $c['after']) {
                return false;
            }
        }

        return true;
    }

    /** @return list<Change> */
    public function changes(): array
    {
        return $this->changes;
    }

    /**
     * A row without what every edit moves by itself: the revision and the time of the last change.
     *
     * @return Row|null
     */
    private function row(string $table, int $id): ?array
    {
        $row = DB::table($table)->where('id', $id)->first();

        return $row === null ? null : array_diff_key((array) $row, self::MOVES_BY_ITSELF[$table] ?? []);
    }
}
