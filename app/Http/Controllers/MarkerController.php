<?php

declare(strict_types=1);

namespace App\Http\Controllers;

use App\Assets\BlobStore;
use App\Exceptions\UserError;
use App\Intake\ArrivalDesk;
use App\Intake\FileMap;
use App\Models\Arrival;
use App\Models\User;
use App\Policies\Access;
use CrispReel\Core\Format\Gltf\GltfDraft;
use CrispReel\Core\Intake\Fitting\Markers;
use CrispReel\Core\Intake\Fitting\VoxelBody;
use CrispReel\Core\Intake\Subject;
use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;

/** The eight places from which a skeleton is fitted to an arrival: as proposed by its shape, or as set before. */
final class MarkerController
{
    public function __invoke(Request $request, Arrival $arrival, BlobStore $blobs, ArrivalDesk $desk): JsonResponse
    {
        /** @var User $user */
        $user = $request->user();
        Access::see($user, $arrival->production);
        $files = new FileMap([$arrival->path => $arrival->original] + $arrival->companions, $blobs);
        $examined = $desk->examination($arrival, $blobs->get($arrival->original), $files, ['skeleton' => false] + $arrival->choices);
        $subject = new Subject(GltfDraft::open($examined->glb), 'glb');
        $solids = $subject->solids();
        if ($subject->isFigure() || $solids === []) {
            throw new UserError('fit.skeleton', 'It has a skeleton of its own.', 'Choose its roles instead.', 409);
        }
        $body = VoxelBody::of($solids);
        $markers = Markers::proposed($body);
        $chosen = is_array($arrival->choices['skeleton'] ?? null) ? $arrival->choices['skeleton'] : [];

        return response()->json([
            'markers' => $markers->with(is_array($chosen['markers'] ?? null) ? $chosen['markers'] : [], $body)->places,
            'proposed' => $markers->places, 'sure' => $markers->sure,
            'fingers' => ($chosen['fingers'] ?? false) === true,
        ]);
    }
}
