<?php

declare(strict_types=1);

use App\Http\Controllers\AccountController;
use App\Http\Controllers\ArrivalController;
use App\Http\Controllers\AssetController;
use App\Http\Controllers\CollectionController;
use App\Http\Controllers\CoverController;
use App\Http\Controllers\FigureController;
use App\Http\Controllers\KitController;
use App\Http\Controllers\MarkerController;
use App\Http\Controllers\MemberController;
use App\Http\Controllers\PageController;
use App\Http\Controllers\PreviewController;
use App\Http\Controllers\ProductionController;
use App\Http\Controllers\RecordingController;
use App\Http\Controllers\RenderController;
use App\Http\Controllers\SceneController;
use App\Http\Controllers\SceneKitController;
use App\Http\Controllers\SpeechController;
use App\Http\Controllers\WorkController;
use App\Http\Middleware\QuietSession;
use App\Work\Deferred;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Session\Middleware\AuthenticateSession;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Illuminate\View\Middleware\ShareErrorsFromSession;

Route::prefix('api')->group(function (): void {
    Route::middleware('throttle:doors')->group(function (): void {
        Route::get('me', [AccountController::class, 'me']);
        Route::post('register', [AccountController::class, 'register'])->middleware('throttle:register');
        Route::post('sign-in', [AccountController::class, 'signIn']);
        Route::post('password/forgot', [AccountController::class, 'forgot'])->middleware('throttle:reset');
        Route::post('password/reset', [AccountController::class, 'reset'])->middleware('throttle:reset');
        Route::get('invitations/{token}', [MemberController::class, 'invitation']);
    });

    Route::middleware(['auth', 'throttle:poses'])->group(function (): void {
        Route::get('scenes/{scene}/pieces', [SceneController::class, 'pieces']);
        Route::get('scenes/{scene}/plans', [SceneKitController::class, 'plans']);
        Route::get('scenes/{scene}/manifest', [SceneController::class, 'manifest']);
        Route::get('previews/pieces', [PreviewController::class, 'pieces']);
        Route::get('previews/blobs/{hash}', [PreviewController::class, 'blob']);
        Route::get('blobs/{hash}', [AssetController::class, 'blob']);
        Route::get('scenes/{scene}/sounds/{hash}', [SpeechController::class, 'sound']);
    });

    Route::middleware(['auth', 'throttle:looks'])->group(function (): void {
        Route::get('health', [WorkController::class, 'health']);
        Route::get('works/{work}', [WorkController::class, 'show'])->whereUuid('work');
        Route::get('productions', [ProductionController::class, 'index']);
        Route::get('productions/{production}/members', [MemberController::class, 'index']);
        Route::get('productions/{production}/arrivals', [ArrivalController::class, 'index']);
        Route::get('productions/{production}/kit', [KitController::class, 'index']);
        Route::get('productions/{production}/kit/{asset}', [KitController::class, 'show']);
        Route::get('productions/{production}/kit/{asset}/roles', [KitController::class, 'roles']);
        Route::get('productions/{production}/figures', [FigureController::class, 'choices']);
        Route::get('productions/{production}/credits', [KitController::class, 'credits']);
        Route::get('scenes/{scene}', [SceneController::class, 'show']);
        Route::get('scenes/{scene}/assets', [SceneKitController::class, 'assets']);
        Route::get('scenes/{scene}/changes', [SceneController::class, 'changes']);
        Route::get('scenes/{scene}/speech', [SpeechController::class, 'show']);
        Route::get('scenes/{scene}/peaks/{hash}', [RecordingController::class, 'peaks']);
        Route::get('scenes/{scene}/places', [SpeechController::class, 'places']);
        Route::get('scenes/{scene}/subtitles.{as}', [SpeechController::class, 'subtitles'])->whereIn('as', ['srt', 'vtt']);
        Route::get('scenes/{scene}/voices/{voice}/sound', [SpeechController::class, 'sampleSound']);
        Route::get('scenes/{scene}/shots', [CoverController::class, 'shots']);
        Route::get('scenes/{scene}/lookout', [CoverController::class, 'lookout']);
        Route::get('scenes/{scene}/set-ups', [CoverController::class, 'setUps']);
        Route::get('scenes/{scene}/renders', [RenderController::class, 'index']);
        Route::get('renders/{render}/file', [RenderController::class, 'file']);
    });

    Route::middleware(['auth', 'throttle:edits'])->group(function (): void {
        Route::delete('works/{work}', [WorkController::class, 'destroy'])->whereUuid('work');
        Route::post('sign-out', [AccountController::class, 'signOut']);
        Route::post('password', [AccountController::class, 'change']);
        Route::post('productions', [ProductionController::class, 'store']);
        Route::patch('productions/{production}', [ProductionController::class, 'update']);
        Route::delete('productions/{production}', [ProductionController::class, 'destroy']);
        Route::post('productions/{production}/scenes', [ProductionController::class, 'storeScene']);
        Route::patch('productions/{production}/members/{member}', [MemberController::class, 'change']);
        Route::delete('productions/{production}/members/{member}', [MemberController::class, 'remove']);
        Route::delete('productions/{production}/invitations/{invitation}', [MemberController::class, 'withdraw']);
        Route::post('invitations/{token}', [MemberController::class, 'accept']);
        Route::post('arrivals/{arrival}/seen', [ArrivalController::class, 'seen']);
        Route::delete('arrivals/{arrival}', [ArrivalController::class, 'destroy']);
        Route::patch('productions/{production}/kit/{asset}', [KitController::class, 'update']);
        Route::post('productions/{production}/kit/{asset}/replace', [KitController::class, 'replace']);
        Route::post('productions/{production}/kit/{asset}/revert', [KitController::class, 'revert']);
        Route::post('productions/{production}/kit/{asset}/roles', [KitController::class, 'chooseRoles']);
        Route::post('productions/{production}/kit/{asset}/archive', [KitController::class, 'archive']);
        Route::post('productions/{production}/kit/{asset}/keep', [CollectionController::class, 'keep']);
        Route::post('productions/{production}/kit/{asset}/adopt', [CollectionController::class, 'adopt']);
        Route::post('scenes/{scene}/edits', [SceneController::class, 'edit']);
        Route::post('scenes/{scene}/undo', [SceneController::class, 'undo']);
        Route::post('scenes/{scene}/redo', [SceneController::class, 'redo']);
    });
    Route::post('productions/{production}/invitations', [MemberController::class, 'invite'])->middleware(['auth', 'throttle:invitations']);
    Route::post('productions/{production}/drops', [ArrivalController::class, 'drop'])->middleware(['auth', 'throttle:uploads']);
    Route::middleware(['auth', 'throttle:renders'])->group(function (): void {
        Route::post('scenes/{scene}/renders', [RenderController::class, 'store']);
        Route::post('renders/{render}/cancel', [RenderController::class, 'cancel']);
        Route::post('renders/{render}/resume', [RenderController::class, 'resume']);
    });

    // What takes more than a moment is done by a worker: the call is answered with the number of the work.
    Route::middleware(['auth', 'throttle:heavy', Deferred::class])->group(function (): void {
        Route::post('productions/{production}/assets', [AssetController::class, 'store']);
        Route::post('arrivals/{arrival}/mend', [ArrivalController::class, 'mend']);
        Route::get('arrivals/{arrival}/preview', [ArrivalController::class, 'preview']);
        Route::get('arrivals/{arrival}/markers', MarkerController::class);
        Route::get('productions/{production}/figures/preview', [FigureController::class, 'preview']);
        Route::post('productions/{production}/figures', [FigureController::class, 'store']);
        Route::get('productions/{production}/previews', [PreviewController::class, 'show']);
        Route::get('scenes/{scene}/items/{item}/surfaces', [SceneKitController::class, 'surfaces']);
        Route::get('scenes/{scene}/parts', [SceneKitController::class, 'parts']);
        Route::post('scenes/{scene}/cuts', [CoverController::class, 'cuts']);
        Route::get('scenes/{scene}/voices/{voice}/sample', [SpeechController::class, 'sample']);
        Route::post('scenes/{scene}/recordings', [RecordingController::class, 'store']);
    });
});

// Drawing pages show a token of their run: no session, no cookie, nothing written for them.
Route::withoutMiddleware([
    EncryptCookies::class, AddQueuedCookiesToResponse::class, QuietSession::class, ShareErrorsFromSession::class, ValidateCsrfToken::class,
    AuthenticateSession::class,
])->prefix('internal')->group(function (): void {
    Route::prefix('renders/{render}')->group(function (): void {
        Route::get('manifest', [RenderController::class, 'manifest']);
        Route::get('pieces', [RenderController::class, 'pieces']);
        Route::get('blobs/{hash}', [RenderController::class, 'blob']);
        Route::post('frames/{frame}', [RenderController::class, 'frame'])->whereNumber('frame');
    });
    Route::get('draw/{render}', [PageController::class, 'draw'])->whereUuid('render');
});

// Well is who can reach the database. No session, no cookie: it is asked often.
Route::get('up', static function () {
    DB::connection()->select('SELECT 1');

    return response('well', 200, ['Content-Type' => 'text/plain', 'Cache-Control' => 'no-store']);
})->withoutMiddleware('web');

Route::get('/{any?}', [PageController::class, 'app'])->where('any', '^(?!api|internal|build|up).*$');
