<?php

declare(strict_types=1);

namespace App\Intake;

use App\Assets\BlobStore;
use App\Models\Arrival;
use App\Models\Drop;
use App\Renders\DrawPictures;

/** Takes in what was dropped: finds what belongs together, and has each file examined. */
final class DropDesk
{
    public function __construct(private readonly BlobStore $blobs, private readonly Unpacker $unpacker, private readonly ArrivalDesk $desk)
    {
    }

    /** Tries of one file: the worker that reads it may be killed for another's sake once, not twice. */
    private const MOST_TRIES = 2;

    /** Reads a drop from end to end. Safe to run again after a stop: what is done stays done. */
    public function receive(Drop $drop): void
    {
        while (! $this->some($drop, INF)) {
            continue;
        }
    }

    /**
     * Reads files of a drop for about so many seconds, at least one of them.
     *
     * @return bool whether it is done
     */
    public function some(Drop $drop, float $seconds): bool
    {
        $begin = microtime(true);
        $drop->update(['status' => 'reading']);
        $unused = [];
        $given = $drop->files()->orderBy('id')->pluck('blob', 'path')->all();

        /** @var array<string, string> $given */
        $files = new FileMap($this->unpacker->open($given, $unused), $this->blobs);
        if ($drop->arrivals()->doesntExist()) {
            $this->announce($drop, $files);
        }
        foreach ($drop->arrivals()->whereIn('status', ['waiting', 'reading'])->orderBy('id')->get() as $arrival) {
            if (microtime(true) - $begin > $seconds) {
                return false;
            }
            $this->try($arrival, $files);
        }
        $this->loosePictures($drop, $files, $unused);
        $drop->update(['status' => 'done', 'unused' => $unused]);
        DrawPictures::dispatch()->onQueue('pictures');

        return true;
    }

    /** A slip for each file that can stand alone. */
    private function announce(Drop $drop, FileMap $files): void
    {
        foreach (array_filter(array_keys($files->files), FileKinds::isHead(...)) as $path) {
            $drop->arrivals()->firstOrCreate(['path' => $path], [
                'production_id' => $drop->production_id, 'name' => ArrivalDesk::friendly($path), 'format' => FileKinds::ending($path),
                'original' => $files->files[$path], 'bytes' => strlen($this->blobs->get($files->files[$path])),
                'companions' => array_filter(
                    $files->files,
                    static fn (string $p): bool => $p !== $path && ! FileKinds::isHead($p),
                    ARRAY_FILTER_USE_KEY,
                ),
                'choices' => [], 'motions' => [], 'status' => 'waiting',
            ]);
        }
    }

    /** One that is still "reading" was at hand when a worker ended. The second time it is taken to be the reason. */
    private function try(Arrival $arrival, FileMap $files): void
    {
        if ($arrival->tries >= self::MOST_TRIES) {
            $this->desk->refuse(
                $arrival,
                'intake.stopped',
                'Reading it took too long or needed too much memory, twice.',
                'Simplify the file and drop it again.',
                microtime(true),
            );

            return;
        }
        $arrival->update(['tries' => $arrival->tries + 1]);
        $this->read($arrival, $files);
    }

    /**
     * Pictures that no file of the drop asked for: those that an earlier arrival misses are linked to it, the rest are
     * pictures of their own. What is neither is named.
     *
     * @param  array<string, string>  $unused
     */
    private function loosePictures(Drop $drop, FileMap $files, array &$unused): void
    {
        $loose = array_filter(
            $files->files,
            static fn (string $p): bool => ! isset($files->used[$p]) && ! FileKinds::isHead($p),
            ARRAY_FILTER_USE_KEY,
        );
        $wanting = Arrival::query()->where('production_id', $drop->production_id)->where('status', 'ready')
            ->where('drop_id', '!=', $drop->id)->get()
            ->filter(static fn (Arrival $a): bool => is_array($a->slip) && ($a->slip['missing'] ?? []) !== []);
        foreach ($wanting as $arrival) {
            $map = new FileMap($arrival->companions + $loose, $this->blobs);
            $found = 0;
            foreach (is_array($arrival->slip['missing'] ?? null) ? $arrival->slip['missing'] : [] as $name) {
                $found += is_string($name) && $map->find($arrival->path, $name) !== null ? 1 : 0;
            }
            if ($found > 0) {
                $arrival->update(['companions' => $arrival->companions + $loose]);
                $this->desk->examine($arrival);
                $loose = array_diff_key($loose, $map->used);
            }
        }
        foreach ($loose as $path => $blob) {
            if (FileKinds::isPicture($path) && $drop->arrivals()->doesntExist()) {
                $this->read($drop->arrivals()->create([
                    'production_id' => $drop->production_id, 'name' => ArrivalDesk::friendly($path), 'path' => $path,
                    'format' => FileKinds::ending($path), 'original' => $blob, 'bytes' => strlen($this->blobs->get($blob)),
                    'companions' => [], 'choices' => [], 'motions' => [], 'status' => 'waiting',
                ]), $files);
            } elseif (! in_array(FileKinds::ending($path), FileKinds::COMPANIONS, true) || ! FileKinds::isPicture($path)) {
                $unused[$path] = FileKinds::isPicture($path)
                    ? 'No model in the drop uses this picture.'
                    : 'Files of this kind are not taken; taken are '.FileKinds::taken().'.';
            }
        }
    }

    private function read(Arrival $arrival, FileMap $files): void
    {
        $known = Arrival::query()->where('production_id', $arrival->production_id)->where('original', $arrival->original)
            ->where('id', '<', $arrival->id)->where('status', 'ready')->whereNotNull('asset_id')->first();
        if ($known !== null) {
            $arrival->update([
                'status' => 'known', 'asset_id' => $known->asset_id, 'kind' => $known->kind, 'slip' => $known->slip,
                'motions' => $known->motions,
            ]);

            return;
        }
        $arrival->update(['status' => 'reading']);
        $this->desk->examine($arrival, $files);
    }
}
