<?php

declare(strict_types=1);

namespace App\Edits;

use App\Assets\StoredAssets;
use App\Exceptions\UserError;
use App\Models\Asset;
use App\Models\AssetVersion;
use App\Models\Scene;
use App\Scenes\DocumentBuilder;
use App\Scenes\SceneRows;
use App\Scenes\SceneStream;
use CrispReel\Core\Compile\CompiledScene;
use CrispReel\Core\Compile\Memory;
use CrispReel\Core\Document\Command;
use CrispReel\Core\Document\Document;
use CrispReel\Core\Document\Fields\FieldList;
use CrispReel\Core\Format\Gltf\AssetDigest;
use CrispReel\Core\Staging\Ground;
use Illuminate\Support\Facades\DB;
use stdClass;

/** A scene being changed: rows by reference, the ground, and the settled scene as it is now. */
final class EditContext
{
    /** @var array<string, int> rows made in this call, by the name the caller gave them */
    private array $made = [];

    /** @var array{string, Ground}|null the ground, by what it is made of */
    private ?array $stage = null;

    private ?CompiledScene $compiled = null;

    private int $compiledAt = -1;

    public function __construct(
        public readonly Scene $scene,
        public readonly Recorder $rows,
        private readonly SceneStream $stream,
        public readonly StoredAssets $assets,
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
        foreach (Hanging::parts($this->scene->id, $class, $id) as [$table, $row, $column, $left]) {
            $this->rows->update($table, $row, [$column => $left]);
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

    /** The scene's rows as they are after the commands so far. */
    public function document(): Document
    {
        return DocumentBuilder::build($this->scene->refresh());
    }

    /**
     * Does what an intention came down to.
     *
     * @param  list<Command>  $commands
     */
    public function carryOut(array $commands): void
    {
        foreach ($commands as $command) {
            CommandList::get($command->name)->apply($this, $command->payload);
        }
    }

    /** The scene's ground as it is after the commands so far. */
    public function stage(): Ground
    {
        $things = $this->scene->items()->orderBy('id')
            ->get(['id', 'kind', 'asset_id', 'pinned_version_id', 'x', 'y', 'z', 'heading_deg', 'scale'])->toJson();
        if ($this->stage === null || $this->stage[0] !== $things) {
            $this->stage = [$things, new Ground($this->document(), $this->assets, app(Memory::class))];
        }

        return $this->stage[1];
    }

    /** How high the origin of a thing is above what it is put on, at scale 1, metres. */
    public function rise(int $assetId, string $kind): float
    {
        return $kind === 'prop' ? AssetDigest::rise($this->digest($assetId)) : 0.0;
    }

    /** Planar radius of what is put in, metres. */
    public function radius(int $assetId, string $kind): float
    {
        return $kind === 'performer' ? Ground::BODY : Ground::radius($this->digest($assetId));
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
