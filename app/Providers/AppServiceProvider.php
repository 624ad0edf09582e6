<?php

declare(strict_types=1);

namespace LucidStep\App\Providers;

use Illuminate\Cache\RateLimiting\Limit;
use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\ModelNotFoundException;
use Illuminate\Database\Events\MigrationsEnded;
use Illuminate\Database\Events\NoPendingMigrations;
use Illuminate\Http\Request;
use Illuminate\Mail\Events\MessageSending;
use Illuminate\Routing\UrlGenerator;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Event;
use Illuminate\Support\Facades\Gate;
use Illuminate\Support\Facades\Mail;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Facades\RateLimiter;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\ServiceProvider;
use Illuminate\Support\Str;
use Laravel\Sanctum\Sanctum;
use LucidStep\App\Areas\Casebook\Actions\HandOverCases;
use LucidStep\App\Areas\Casebook\Policies\TestCasePolicy;
use LucidStep\App\Areas\Cycles\Actions\HandOverEntries;
use LucidStep\App\Areas\Cycles\Policies\EntryPolicy;
use LucidStep\App\Areas\Defects\Actions\HandOverDefects;
use LucidStep\App\Areas\Defects\Policies\DefectPolicy;
use LucidStep\App\Areas\Evidence\Policies\EvidencePolicy;
use LucidStep\App\Areas\Mail\Catcher;
use LucidStep\App\Areas\Mail\UnsentMails;
use LucidStep\App\Areas\Notices\Actions\ReportStandstill;
use LucidStep\App\Areas\People\Actions\ManagePeople;
use LucidStep\App\Areas\People\Http\Requests\SignInRequest;
use LucidStep\App\Areas\People\Queries\ReadPeople;
use LucidStep\App\Areas\Sessions\Actions\HandOverCharters;
use LucidStep\App\Areas\Sessions\Actions\PairObserver;
use LucidStep\App\Areas\Setup\Policies\ProjectPolicy;
use LucidStep\App\Areas\Walk\Actions\RestoreWalkedEntry;
use LucidStep\App\Areas\Walk\Policies\AttemptPolicy;
use LucidStep\App\Models\AccessToken;
use LucidStep\App\Models\Attempt;
use LucidStep\App\Models\Build;
use LucidStep\App\Models\BulkAct;
use LucidStep\App\Models\CaseExport;
use LucidStep\App\Models\CaseImport;
use LucidStep\App\Models\CaseMessage;
use LucidStep\App\Models\Charter;
use LucidStep\App\Models\Configuration;
use LucidStep\App\Models\Cycle;
use LucidStep\App\Models\DataTable;
use LucidStep\App\Models\Defect;
use LucidStep\App\Models\DefectComment;
use LucidStep\App\Models\DefectFile;
use LucidStep\App\Models\Entry;
use LucidStep\App\Models\EntryAddition;
use LucidStep\App\Models\Evidence;
use LucidStep\App\Models\Folder;
use LucidStep\App\Models\Invitation;
use LucidStep\App\Models\LateCommand;
use LucidStep\App\Models\Milestone;
use LucidStep\App\Models\PlanAct;
use LucidStep\App\Models\Project;
use LucidStep\App\Models\Release;
use LucidStep\App\Models\Requirement;
use LucidStep\App\Models\RequirementImport;
use LucidStep\App\Models\Routine;
use LucidStep\App\Models\SavedFilter;
use LucidStep\App\Models\SessionComment;
use LucidStep\App\Models\SessionLine;
use LucidStep\App\Models\Suite;
use LucidStep\App\Models\TestCase;
use LucidStep\App\Models\TestSession;
use LucidStep\App\Models\TrackerCall;
use LucidStep\App\Models\User;
use LucidStep\App\Support\Access\HiddenNames;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\PlannedCycles;
use LucidStep\App\Support\Background\BackgroundWork;
use LucidStep\App\Support\Database\DatabaseRights;
use LucidStep\App\Support\Database\KeptConnection;
use LucidStep\App\Support\Http\OneAtATime;
use LucidStep\App\Support\People\OpenWork;
use LucidStep\App\Support\Problems\SecondFactorMissing;
use LucidStep\App\Support\Record\RecordSigner;
use LucidStep\Core\Access\Permission;
use Symfony\Component\HttpFoundation\Response;

final class AppServiceProvider extends ServiceProvider
{
    private const POLICIES = [
        Attempt::class => AttemptPolicy::class,
        Defect::class => DefectPolicy::class,
        Entry::class => EntryPolicy::class,
        Evidence::class => EvidencePolicy::class,
        Project::class => ProjectPolicy::class,
        TestCase::class => TestCasePolicy::class,
    ];

    public function register(): void
    {
        $this->app->scoped(Memberships::class);
        $this->app->scoped(HiddenNames::class);
        // Its key is read once.
        $this->app->scoped(RecordSigner::class);
        $this->app->tag([HandOverEntries::class, HandOverDefects::class, HandOverCases::class, HandOverCharters::class], OpenWork::class);
        foreach ([ManagePeople::class, ReadPeople::class] as $class) {
            $this->app->when($class)->needs('$work')->giveTagged(OpenWork::class);
        }
        // Here and not in the configuration, which the command line caches.
        if ('fpm-fcgi' === \PHP_SAPI) {
            $kept = KeptConnection::of((array) config('database.connections.pgsql'), 'UTC' === getenv('PGTZ'));
            config(['database.connections.pgsql' => $kept]);
        }
    }

    public function boot(): void
    {
        Sanctum::usePersonalAccessTokenModel(AccessToken::class);
        Model::shouldBeStrict(!$this->app->environment('production'));
        foreach (self::POLICIES as $model => $policy) {
            Gate::policy($model, $policy);
        }
        // Only tries that fail are counted.
        $failed = static fn(Response $response): bool => $response->getStatusCode() === 422;
        RateLimiter::for(
            'sign-in',
            static fn(Request $request): array => [
                Limit::perMinute(6)
                    ->by(SignInRequest::address($request->input('email')) . '|' . $request->ip())
                    ->after($failed),
                Limit::perMinute(60)->by((string) $request->ip())->after($failed),
            ],
        );
        // An address proves who one is, and nobody tries them out.
        RateLimiter::for('guests', static fn(Request $request): Limit => Limit::perMinute(30)->by((string) $request->ip()));
        // A page that reports each second, and what it sends again; behind one address a whole team.
        RateLimiter::for(
            'observations',
            static fn(Request $request): array => [
                Limit::perMinute(240)->by(PairObserver::hash(\is_string($request->input('code')) ? $request->input('code') : '')),
                Limit::perMinute(12_000)->by((string) $request->ip()),
            ],
        );
        // Whoever sits at somebody's desk does not find out their password.
        RateLimiter::for(
            'password',
            static fn(Request $request): Limit => Limit::perMinute(6)->by((string) $request->user()?->getAuthIdentifier())->after($failed),
        );
        // Addresses in mails and pages are those of the installation, never what a request calls it.
        $urls = $this->app->make(UrlGenerator::class);
        $urls->useOrigin((string) config('app.url'));
        $urls->forceScheme((string) (parse_url((string) config('app.url'), \PHP_URL_SCHEME) ?: 'http'));
        Event::listen([MigrationsEnded::class, NoPendingMigrations::class], static function (): void {
            [$owner, $role] = [DB::connection('owner'), (string) DB::connection('pgsql')->getConfig('username')];
            if ($role !== $owner->getConfig('username')) {
                DatabaseRights::grant($owner, $role);
            }
        });
        RateLimiter::for('api', static function (Request $request): array {
            $costly = OneAtATime::isCostly($request);
            $most = (array) config('lucid.limits');
            $who = (string) ($request->user()?->getAuthIdentifier() ?? '');

            return [
                ...$costly ? [Limit::perMinute($most['costly'])->by("costly {$who}")] : [],
                ...$request->isMethodSafe()
                    ? []
                    : [
                        Limit::perMinute($most['writes'])->by("writes {$who}"),
                        Limit::perMinute($most['writes_of_address'])->by("writes {$request->ip()}"),
                    ],
            ];
        });
        Queue::looping(function (): void {
            if (BackgroundWork::alive(BackgroundWork::WORKER) && BackgroundWork::isSettled()) {
                $this->app->make(ReportStandstill::class)->ofScheduler();
            }
        });
        // A long job gives no sign.
        Queue::before(static fn() => BackgroundWork::alive(BackgroundWork::WORKER, 900));
        Queue::after(static fn() => BackgroundWork::alive(BackgroundWork::WORKER, 1));
        $this->bindings();
        Mail::extend('catcher', static fn(): Catcher => new Catcher());
        Event::listen(MessageSending::class, [UnsentMails::class, 'handle']);
    }

    /**
     * Everything in an address is looked up together with the right to see it: what one may not see is not found.
     */
    private function bindings(): void
    {
        Route::bind('project', fn(string $code): Model => $this->visible(Project::query()->where('code', $code)->first()));
        $byKey = [
            'cycle' => Cycle::class,
            'case' => TestCase::class,
            'other' => TestCase::class,
            'defect' => Defect::class,
            'charter' => Charter::class,
            'requirement' => Requirement::class,
        ];
        foreach ($byKey as $name => $class) {
            Route::bind(
                $name,
                fn(string $key): Model => $this->visible(
                    $class
                        ::query()
                        ->where(Str::isUuid($key) ? 'id' : 'key', $key)
                        ->first(),
                ),
            );
        }
        $byId = [
            'entry' => Entry::class,
            'attempt' => Attempt::class,
            'evidence' => Evidence::class,
            'folder' => Folder::class,
            'routine' => Routine::class,
            'table' => DataTable::class,
            'suite' => Suite::class,
            'filter' => SavedFilter::class,
            'message' => CaseMessage::class,
            'comment' => DefectComment::class,
            'defectFile' => DefectFile::class,
            'act' => BulkAct::class,
            'defectAct' => BulkAct::class,
            'import' => CaseImport::class,
            'export' => CaseExport::class,
            'milestone' => Milestone::class,
            'configuration' => Configuration::class,
            'release' => Release::class,
            'build' => Build::class,
            'addition' => EntryAddition::class,
            'planAct' => PlanAct::class,
            'lateCommand' => LateCommand::class,
            'invitation' => Invitation::class,
            'call' => TrackerCall::class,
            'testSession' => TestSession::class,
            'sessionLine' => SessionLine::class,
            'sessionComment' => SessionComment::class,
            'requirementImport' => RequirementImport::class,
        ];
        foreach ($byId as $name => $class) {
            Route::bind($name, fn(string $id): Model => $this->visible(Str::isUuid($id) ? $class::query()->find($id) : null));
        }
        // An entry that a device walked may not be there any more.
        Route::bind('walked', function (string $id): string {
            $user = request()->user();
            $this->app->make(RestoreWalkedEntry::class)->sure($id, $user instanceof User ? $user : throw new ModelNotFoundException());

            return $id;
        });
    }

    private function visible(?Model $model): Model
    {
        $user = request()->user();
        $project = $model instanceof Project ? $model->id : $model?->getAttribute('project_id');
        $memberships = $this->app->make(Memberships::class);
        $role = null === $model || !($user instanceof User) || !\is_string($project) ? null : $memberships->role($user, $project);
        if (null !== $role && $user instanceof User && \is_string($project)) {
            throw_if($memberships->lacksFactor($user, $project), SecondFactorMissing::inProject());
            $this->app->make(HiddenNames::class)->areHidden = !$memberships->may($user, $project, Permission::SeeEvidence);
        }
        // What somebody recorded in their own attempt is kept, even after they left the project.
        if (
            $model instanceof Attempt &&
            null === $role &&
            request()->isMethod('POST') &&
            $user instanceof User &&
            $model->tester_id === $user->id
        ) {
            return $model;
        }
        if (null === $model || null === $role || (!$role->leads() && PlannedCycles::has($model))) {
            throw new ModelNotFoundException();
        }

        return $model;
    }
}
