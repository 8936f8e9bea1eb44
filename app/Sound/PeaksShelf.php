<?php

declare(strict_types=1);

namespace App\Sound;

use App\Assets\BlobStore;
use CrispReel\Core\Sound\Peaks;
use Illuminate\Support\Facades\DB;

/** How loud sounds are along their length: made once of each file, when it is first looked at. */
final class PeaksShelf
{
    public function __construct(private readonly BlobStore $blobs, private readonly SoundFiles $files)
    {
    }

    /** @return array{perSecond: float, levels: string} levels as bytes */
    public function of(string $sound): array
    {
        $row = DB::table('peaks')->where('sound', $sound)->first();
        if ($row !== null) {
            return ['perSecond' => (float) $row->per_second, 'levels' => (string) $row->levels];
        }
        $made = Peaks::of($this->files->pcm($this->blobs->get($sound), 1, Peaks::RATE));
        DB::table('peaks')->insertOrIgnore(['sound' => $sound, 'per_second' => $made['perSecond'], 'levels' => $made['levels']]);

        return $made;
    }
}
