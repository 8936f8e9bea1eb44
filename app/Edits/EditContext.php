<?php

declare(strict_types=1);

namespace App\Edits;

use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Item;
use App\Models\Scene;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\Clearance;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Compile\Surroundings;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Geometry\FloorMap;
use CrispReel\Core\Math\Placement;
use Illuminate\Support\Facades\DB;
use stdClass;

/** A scene being changed: rows by reference, the ground, and the settled scene as it is now. */
final class EditContext
{
    /** @var array{array{int, int|null}, FloorMap}|null floors after so many changes, without an item */
    private ?array $floors = null;

    /** @var array<string, int> rows made in this call, by the name the caller gave them */
    private array $made = [];

    /** Planar radius up to which what is put in is a person, metres. */
    private const BODY = 0.35;

    /** Metres to each side that a floor goes on, and that it may rise or fall there. */
    private const WIDE = 0.65;

    private const STEP = 0.35;

    /** @var array{int, Surroundings}|null what stands around, after so many changes */
    private ?array $around = null;

    private ?CompiledScene $compiled = null;

    private int $compiledAt = -1;

    public function __construct(
        public readonly Scene $scene,
        public readonly Recorder $rows,
        private readonly SceneStream $stream,
        private readonly StoredAssets $assets,
    ) {
    }

    public function remember(mixed $as, int $id): void
    {
        if (is_string($as) && $as !== '') {
            $this->made[$as] = $id;
        }
    }

    /** A row of this scene by id (12, "i12"), by a name given earlier in the call ("$cart"), or by its own name. */
    public function find(string $table, mixed $ref): stdClass
    {
        $row = null;
        $kind = FieldList::row(SceneRows::classes()[$table]);
        $letter = $kind->letter;
        if (is_string($ref) && isset($this->made[$ref])) {
            $row = DB::table($table)->where('id', $this->made[$ref])->first();
        } elseif (is_int($ref) || (is_string($ref) && preg_match("/^{$letter}?(\d+)$/", $ref) === 1)) {
            $row = DB::table($table)->where('scene_id', $this->scene->id)->where('id', (int) ltrim((string) $ref, $letter))->first();
        }
        if ($row === null && is_string($ref) && in_array($table, ['items', 'cameras'], true)) {
            $row = DB::table($table)->where('scene_id', $this->scene->id)->where($table === 'items' ? 'name' : 'letter', $ref)->first();
        }

        return $row ?? throw new UserError(
            'edit.not-found',
            sprintf('There is no %s "%s" in this scene.', $kind->word, is_scalar($ref) ? (string) $ref : '?'),
            'Look at the scene again: it may have been removed.',
        );
    }

    /**
     * Takes a row away, with what cannot be without it.
     *
     * @param  class-string  $class
     */
    public function remove(string $class, int $id): void
    {
        foreach (Hanging::on($class, $id) as [$other, $row]) {
            $this->remove($other, $row);
        }
        foreach (Hanging::parts($this->scene->id, $class, $id) as [$table, $row, $column]) {
            $this->rows->update($table, $row, [$column => null]);
        }
        $this->rows->delete(FieldList::row($class)->table, $id);
    }

    /** A kit asset that this production may use. */
    public function asset(mixed $ref): Asset
    {
        $query = Asset::query()->where(fn ($q) => $q->whereNull('production_id')->orWhere('production_id', $this->scene->production_id));
        $asset = is_int($ref) || (is_string($ref) && preg_match('/^a?\d+$/', $ref) === 1)
            ? $query->find((int) ltrim((string) $ref, 'a'))
            : $query->where(fn ($q) => $q->where('slug', $ref)->orWhere('name', $ref))->orderByDesc('production_id')->first();

        return $asset instanceof Asset ? $asset : throw new UserError(
            'edit.no-asset',
            sprintf('There is no asset "%s" in the kit.', is_scalar($ref) ? (string) $ref : '?'),
            'Choose one from the tray, or bring it in first.',
        );
    }

    /** @return array<string, mixed> */
    public function digest(int $assetId): array
    {
        $v = AssetVersion::query()->where('asset_id', $assetId)->orderByDesc('number')->firstOrFail();

        return $this->assets->byHash($v->digest);
    }

    /** The scene as it stands after the commands so far. */
    public function compiled(): CompiledScene
    {
        if ($this->compiled === null || $this->compiledAt !== count($this->rows->changes())) {
            $this->compiled = $this->stream->compile($this->scene->refresh());
            $this->compiledAt = count($this->rows->changes());
        }

        return $this->compiled;
    }

    /**
     * Height of what one stands on at a place: floors come first, not walls and roofs; 0 where there is nothing.
     *
     * @param  float|null  $from  how high it is already: it stays on its storey
     */
    public function ground(float $x, float $z, ?int $exceptItem = null, ?float $from = null): float
    {
        return $this->floors($exceptItem)->stand($x, $z, $from) ?? 0.0;
    }

    private function floors(?int $exceptItem): FloorMap
    {
        if ($this->floors !== null && $this->floors[0] === [count($this->rows->changes()), $exceptItem]) {
            return $this->floors[1];
        }
        $map = new FloorMap;
        foreach ($this->scene->items()->where('kind', '!=', 'performer')->get() as $item) {
            if ($item->id === $exceptItem) {
                continue;
            }
            $digest = $this->digest($item->asset_id);
            $extras = is_array($digest['extras'] ?? null) ? $digest['extras'] : [];
            $floor = is_string($digest['floor'] ?? null) ? base64_decode($digest['floor']) : '';
            if ($floor === '' || isset($extras['backdrop'])) {
                continue;
            }
            /** @var array<int, float> $numbers */
            $numbers = unpack('g*', $floor);
            $map->add(Placement::standing([$item->x, $item->y, $item->z], $item->heading_deg, $item->scale), array_values($numbers));
        }
        $this->floors = [[count($this->rows->changes()), $exceptItem], $map];

        return $map;
    }

    /** How high the origin of a thing is above what it is put on, at scale 1, metres. */
    public function rise(int $assetId, string $kind): float
    {
        return $kind === 'prop' ? AssetDigest::rise($this->digest($assetId)) : 0.0;
    }

    /** Planar radius of an asset. */
    public function radius(int $assetId): float
    {
        $b = $this->digest($assetId)['bounds'] ?? null;
        if (! is_array($b)) {
            return 0.3;
        }

        /** @var array{list<float>, list<float>} $b */
        return max(0.25, min(2.5, 0.5 * max($b[1][0] - $b[0][0], $b[1][2] - $b[0][2])));
    }

    /**
     * The free place nearest to a wish: rings of 0.4 m until it is clear of what stands there.
     *
     * @return array{float, float}
     */
    public function clearOf(float $x, float $z, float $radius): array
    {
        $others = $this->scene->items()->get()
            ->map(fn (Item $i): array => [
                $i->x, $i->z, $i->kind === 'performer' ? 0.32 : $this->radius($i->asset_id), $i->kind, $i->asset_id,
            ])
            ->reject(fn (array $o): bool => $o[3] === 'set' && $this->isOpenSet($o[4]))->all();
        for ($ring = 0; $ring < 14; $ring++) {
            $steps = $ring === 0 ? 1 : 6 * $ring;
            for ($k = 0; $k < $steps; $k++) {
                $px = $x + $ring * 0.4 * sin($k / $steps * 2 * M_PI);
                $pz = $z + $ring * 0.4 * cos($k / $steps * 2 * M_PI);
                $free = array_filter($others, static fn (array $o): bool => hypot($o[0] - $px, $o[1] - $pz) < $o[2] + $radius) === [];
                if ($free && ($radius > self::BODY || $this->standsFree($px, $pz))) {
                    return [$px, $pz];
                }
            }
        }

        return [$x, $z];
    }

    /** Whether somebody who is put there stands in no part of a set. */
    private function standsFree(float $x, float $z): bool
    {
        if ($this->around === null || $this->around[0] !== count($this->rows->changes())) {
            $document = DocumentBuilder::build($this->scene->refresh());
            $this->around = [count($this->rows->changes()), new Surroundings($document, $this->assets, app(Memory::class))];
        }
        $solids = $this->around[1]->solids([$x - 1.0, $z - 1.0, $x + 1.0, $z + 1.0]);

        $y = $this->ground($x, $z);

        return Clearance::within($solids, [$x, $y, $z], 1.7) === null && $this->isWide($x, $y, $z);
    }

    /** Whether a floor goes on to at least half of its sides: a table, a crate and the edge of a wall do not. */
    private function isWide(float $x, float $y, float $z): bool
    {
        $floors = $this->floors(null);
        $level = 0;
        for ($k = 0; $k < 8; $k++) {
            $a = M_PI * $k / 4;
            $beside = $floors->stand($x + self::WIDE * sin($a), $z + self::WIDE * cos($a), $y) ?? 0.0;
            $level += abs($beside - $y) < self::STEP ? 1 : 0;
        }

        return $level >= 4;
    }

    /** A set one stands on or that lies far off, rather than bumps into. */
    private function isOpenSet(int $assetId): bool
    {
        $d = $this->digest($assetId);
        $extras = is_array($d['extras'] ?? null) ? $d['extras'] : [];

        /** @var array{list<float>, list<float>} $b */
        $b = $d['bounds'];

        return isset($extras['backdrop']) || ($b[1][0] - $b[0][0]) * ($b[1][2] - $b[0][2]) > 12.0;
    }

    /** A name nobody in the scene has yet. */
    public function freeName(string $wish): string
    {
        $wish = mb_substr(trim($wish) === '' ? 'Item' : trim($wish), 0, 70);
        for ($n = 1, $name = $wish; DB::table('items')->where('scene_id', $this->scene->id)->where('name', $name)->exists(); $n++) {
            $name = $wish.' '.($n + 1);
        }

        return $name;
    }
}
