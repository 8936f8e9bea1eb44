<?php

declare(strict_types=1);

namespace App\Assets;

use Illuminate\Support\Facades\DB;

/**
 * Verifies the store: every blob by its hash, and that every blob that a row names is there.
 *
 * @phpstan-type Broken array{hash: string, what: string, uses: list<string>, house: bool}
 */
final class StoreCheck
{
    /** Half-written files older than this belong to nobody any more. */
    private const OLD_SECONDS = 3600;

    public int $looked = 0;

    public function __construct(private readonly BlobStore $blobs)
    {
    }

    /**
     * @param  callable(int): mixed  $said  told of each file
     * @return list<Broken>
     */
    public function broken(callable $said): array
    {
        $out = [];
        $there = [];
        foreach ($this->blobs->disk()->allFiles('blobs') as $path) {
            $hash = basename($path);
            if (preg_match('/^[0-9a-f]{64}$/', $hash) !== 1) {
                continue;
            }
            $there[$hash] = true;
            $said(++$this->looked);
            if (! $this->blobs->isSound($hash)) {
                $out[] = $this->entry($hash, 'its content is not what its name says');
            }
        }
        foreach (array_diff($this->named(), array_keys($there)) as $hash) {
            $out[] = $this->entry($hash, 'it is not there');
        }
        // What a voice has read it reads again.
        $lost = array_column($out, 'hash');
        DB::table('readings')->whereIn('sound', $lost)->orWhereIn('digest', $lost)->delete();

        return $out;
    }

    /** Removes what killed writes have left. @return int files */
    public function sweep(): int
    {
        $count = 0;
        foreach ($this->blobs->disk()->allFiles() as $path) {
            if (
                preg_match('/\.part(-[0-9a-f]{12})?$/', $path) === 1
                    && $this->blobs->disk()->lastModified($path) < time() - self::OLD_SECONDS
            ) {
                $this->blobs->disk()->delete($path);
                $count++;
            }
        }

        return $count;
    }

    /** @return list<string> hashes that rows name */
    private function named(): array
    {
        $all = [];
        foreach (['blob', 'digest', 'light', 'picture'] as $column) {
            $all = [
                ...$all,
                ...DB::table('asset_versions')->whereNotNull($column)->where($column, '!=', '')->distinct()->pluck($column)->all(),
            ];
        }
        $all = [
            ...$all, ...DB::table('arrivals')->distinct()->pluck('original')->all(),
            ...DB::table('dressings')->distinct()->pluck('blob')->all(), ...DB::table('readings')->pluck('sound')->all(),
            ...DB::table('readings')->pluck('digest')->all(),
        ];

        return array_values(array_unique(array_filter(
            $all,
            static fn (mixed $h): bool => is_string($h) && preg_match('/^[0-9a-f]{64}$/', $h) === 1,
        )));
    }

    /** @return Broken */
    private function entry(string $hash, string $what): array
    {
        $versions = DB::table('asset_versions')->join('assets', 'assets.id', '=', 'asset_versions.asset_id')
            ->leftJoin('productions', 'productions.id', '=', 'assets.production_id')
            ->where(
                static fn ($q) => $q->where('blob', $hash)->orWhere('digest', $hash)->orWhere('light', $hash)->orWhere('picture', $hash)
            )
            ->get(['assets.name', 'assets.production_id', 'productions.name as production', 'asset_versions.number']);
        $uses = $versions->map(static fn (object $v): string => sprintf(
            '"%s" (%s, version %d)',
            $v->name,
            $v->production_id === null ? 'house kit' : "production \"{$v->production}\"",
            $v->number,
        ))->all();
        foreach (DB::table('arrivals')->where('original', $hash)->limit(5)->pluck('path') as $path) {
            $uses[] = 'the file that arrived as "'.(is_string($path) ? $path : '?').'"';
        }
        if (DB::table('readings')->where('sound', $hash)->orWhere('digest', $hash)->exists()) {
            $uses[] = 'a line that a voice has read; it is read again when its scene is opened';
        }
        foreach (DB::table('render_jobs')->where('document', $hash)->limit(5)->pluck('id') as $id) {
            $uses[] = 'render '.(is_string($id) ? $id : '?');
        }

        return [
            'hash' => $hash,
            'what' => $what,
            'uses' => array_values($uses),
            'house' => $versions->contains(static fn (object $v): bool => $v->production_id === null),
        ];
    }
}
