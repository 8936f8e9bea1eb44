<?php

declare(strict_types=1);

namespace App\Work;

use Illuminate\Queue\DatabaseQueue;
use Illuminate\Queue\Jobs\DatabaseJobRecord;

/**
 * The database queue, taking turns by person: who has least running comes first, among those who was served longest ago. So at
 * most one job of a person runs while others wait. A job remembers which worker has it, so that it goes on when that one is gone.
 */
final class FairQueue extends DatabaseQueue
{
    /**
     * @param  string  $queue
     * @param  string  $payload
     * @param  int  $availableAt
     * @param  int  $attempts
     * @return array<string, mixed>
     */
    protected function buildDatabaseRecord($queue, $payload, $availableAt, $attempts = 0): array
    {
        $said = json_decode($payload, true);
        $said = is_array($said) ? $said : [];

        return ['person' => $said['person'] ?? null, 'subject' => $said['subject'] ?? null]
            + parent::buildDatabaseRecord($queue, $payload, $availableAt, $attempts);
    }

    /** @param  string|null  $queue */
    protected function getNextAvailableJob($queue): ?DatabaseJobRecord
    {
        $queue = $this->getQueue($queue);
        foreach ($this->people($queue) as $person) {
            $job = $this->database->table($this->table)->lock($this->getLockForPopping())->where('queue', $queue)
                ->where(fn ($q) => $person === 0 ? $q->whereNull('person') : $q->where('person', $person))
                ->where(function ($query): void {
                    $this->isAvailable($query);
                    $this->isReservedButExpired($query);
                })->orderBy('id')->first();
            if ($job !== null) {
                $number = (int) (microtime(true) * 1000);
                $this->database->table('turns')
                    ->upsert(['queue' => $queue, 'person' => $person, 'number' => $number], ['queue', 'person'], ['number']);

                return new DatabaseJobRecord((object) $job);
            }
        }

        return null;
    }

    /** @return list<int> who waits, in the order of turns; 0: nobody's */
    private function people(string $queue): array
    {
        $now = $this->currentTime();
        $rows = $this->database->select(
            'SELECT COALESCE(j.person, 0) AS person, SUM(j.reserved_at IS NOT NULL AND j.reserved_at > ?) AS running, MIN(j.id) AS first, COALESCE(MAX(t.number), 0) AS served
                FROM jobs j LEFT JOIN turns t ON t.queue = j.queue AND t.person = COALESCE(j.person, 0) WHERE j.queue = ? GROUP BY COALESCE(j.person, 0)
                HAVING SUM((j.reserved_at IS NULL AND j.available_at <= ?) OR j.reserved_at <= ?) > 0 ORDER BY running, served, first',
            [$now - $this->retryAfter, $queue, $now, $now - $this->retryAfter],
        );

        return array_map(static fn (object $r): int => (int) $r->person, array_values($rows));
    }

    /** @param  DatabaseJobRecord  $job */
    protected function markJobAsReserved($job): DatabaseJobRecord
    {
        $this->database->table($this->table)->where('id', $job->__get('id'))
            ->update(['reserved_at' => $job->touch(), 'attempts' => $job->increment(), 'reserved_by' => Worker::name()]);

        return $job;
    }
}
