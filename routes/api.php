<?php

declare(strict_types=1);

use Illuminate\Support\Facades\Route;
use LucidStep\App\Areas\Casebook\Http\Controllers\CaseBulkController;
use LucidStep\App\Areas\Casebook\Http\Controllers\CaseController;
use LucidStep\App\Areas\Casebook\Http\Controllers\CaseExchangeController;
use LucidStep\App\Areas\Casebook\Http\Controllers\CaseMessageController;
use LucidStep\App\Areas\Casebook\Http\Controllers\DataTableController;
use LucidStep\App\Areas\Casebook\Http\Controllers\FolderController;
use LucidStep\App\Areas\Casebook\Http\Controllers\RoutineController;
use LucidStep\App\Areas\Casebook\Http\Controllers\SuiteController;
use LucidStep\App\Areas\Cycles\Http\Controllers\ComparisonController;
use LucidStep\App\Areas\Cycles\Http\Controllers\CycleController;
use LucidStep\App\Areas\Cycles\Http\Controllers\MilestoneController;
use LucidStep\App\Areas\Cycles\Http\Controllers\PlanController;
use LucidStep\App\Areas\Defects\Http\Controllers\DefectActController;
use LucidStep\App\Areas\Defects\Http\Controllers\DefectController;
use LucidStep\App\Areas\Defects\Http\Controllers\DefectFileController;
use LucidStep\App\Areas\Defects\Http\Controllers\DefectListController;
use LucidStep\App\Areas\Defects\Http\Controllers\DefectTalkController;
use LucidStep\App\Areas\Defects\Http\Controllers\TrackerController;
use LucidStep\App\Areas\Evidence\Http\Controllers\FileController;
use LucidStep\App\Areas\Mail\Http\Controllers\MailController;
use LucidStep\App\Areas\Notices\Http\Controllers\NoticeController;
use LucidStep\App\Areas\People\Http\Controllers\AccessController;
use LucidStep\App\Areas\People\Http\Controllers\AccountController;
use LucidStep\App\Areas\People\Http\Controllers\InstallationController;
use LucidStep\App\Areas\People\Http\Controllers\JoiningController;
use LucidStep\App\Areas\People\Http\Controllers\PeopleController;
use LucidStep\App\Areas\People\Http\Controllers\ProjectController;
use LucidStep\App\Areas\People\Http\Controllers\SessionController;
use LucidStep\App\Areas\Search\Http\Controllers\SearchController;
use LucidStep\App\Areas\Sessions\Http\Controllers\ObserverController;
use LucidStep\App\Areas\Sessions\Http\ObservedPage;
use LucidStep\App\Areas\Setup\Http\Controllers\HandsetController;
use LucidStep\App\Areas\Setup\Http\Controllers\ListController;
use LucidStep\App\Areas\Setup\Http\Controllers\PlanningSetupController;
use LucidStep\App\Areas\Setup\Http\Controllers\SetupLogController;
use LucidStep\App\Areas\Setup\Http\Controllers\WalkSetupController;
use LucidStep\App\Areas\Today\Http\Controllers\TodayController;
use LucidStep\App\Areas\Walk\Http\Controllers\AttemptController;
use LucidStep\App\Areas\Walk\Http\Controllers\EntryController;
use LucidStep\App\Areas\Walk\Http\Controllers\EvidenceController;
use LucidStep\App\Areas\Walk\Http\Controllers\QueueController;
use LucidStep\App\Areas\Walk\Http\Controllers\RecordController;
use LucidStep\App\Areas\Walk\Http\Controllers\ReproductionController;
use LucidStep\App\Support\Access\RequireAbility;
use LucidStep\App\Support\Access\RequirePermission;
use LucidStep\App\Support\Http\Idempotent;
use LucidStep\App\Support\Http\NameActor;
use LucidStep\App\Support\Http\OneAtATime;
use LucidStep\App\Support\Http\PlainJson;
use LucidStep\App\Support\Http\ReadableInput;
use LucidStep\App\Support\Http\UpController;

Route::get('/welcome', [SessionController::class, 'welcome']);
Route::post('/session', [SessionController::class, 'store'])->middleware(['throttle:sign-in', ReadableInput::class]);

// Who has no session yet; what proves that one may comes in the body.
Route::middleware(['throttle:guests', ReadableInput::class])->group(function (): void {
    Route::post('/invitation-lookups', [JoiningController::class, 'invitation']);
    Route::post('/invitation-acceptances', [JoiningController::class, 'accept']);
    Route::post('/link-lookups', [JoiningController::class, 'link']);
    Route::post('/link-uses', [JoiningController::class, 'useLink']);
    Route::post('/password-resets', [JoiningController::class, 'reset']);
});

// A tracker outside tells of a change: its signature proves that it is the one.
Route::post('/tracker-webhooks/{connection}', [TrackerController::class, 'webhook'])->middleware('throttle:600,1');

// A page that is observed reports: the code of a session and a listed origin let it in.
Route::post('/observations', [ObserverController::class, 'take'])->middleware([
    PlainJson::class,
    'throttle:observations',
    ReadableInput::class,
    ObservedPage::class,
]);

if (config('lucid.bench')) {
    Route::get('/bench/bare', UpController::class . '@bare');
    Route::post('/bench/bare', UpController::class . '@bare')->middleware(['auth:sanctum', Idempotent::class]);
}

Route::middleware([
    'auth:sanctum',
    'throttle:api',
    RequireAbility::class,
    RequirePermission::class,
    OneAtATime::class,
    ReadableInput::class,
    NameActor::class,
])->group(function (): void {
    Route::get('/session', [SessionController::class, 'show']);
    Route::delete('/session', [SessionController::class, 'destroy']);

    Route::get('/account', [AccountController::class, 'show']);
    Route::get('/installation', [InstallationController::class, 'show']);
    Route::get('/projects', [ProjectController::class, 'index']);
    Route::get('/projects/{project}/people', [PeopleController::class, 'index']);
    Route::get('/projects/{project}', [ProjectController::class, 'show']);
    Route::get('/projects/{project}/today', [TodayController::class, 'show']);
    Route::get('/projects/{project}/overview', [TodayController::class, 'overview']);
    Route::get('/projects/{project}/walk-pack', [TodayController::class, 'pack']);
    Route::get('/projects/{project}/scratch', [TodayController::class, 'scratch']);
    Route::get('/projects/{project}/access', [AccessController::class, 'show']);
    Route::get('/projects/{project}/setup-log', [SetupLogController::class, 'show']);
    Route::get('/projects/{project}/settings', [SetupLogController::class, 'find']);
    Route::get('/projects/{project}/walk-setup', [WalkSetupController::class, 'show']);
    Route::get('/projects/{project}/handset', [HandsetController::class, 'show']);
    Route::get('/projects/{project}/changes', [ProjectController::class, 'changes']);
    Route::get('/projects/{project}/go-to', [SearchController::class, 'goTo']);

    Route::get('/projects/{project}/casebook', [CaseController::class, 'frame']);
    Route::get('/projects/{project}/folders', [CaseController::class, 'folders']);
    Route::get('/projects/{project}/cases', [CaseController::class, 'index']);
    Route::get('/projects/{project}/cases/counts', [CaseController::class, 'counts']);
    Route::post('/projects/{project}/case-checks', [CaseController::class, 'check']);
    Route::post('/projects/{project}/case-previews', [CaseBulkController::class, 'preview']);
    Route::get('/cases/{case}', [CaseController::class, 'show']);
    Route::post('/cases/{case}/merges', [CaseController::class, 'merge']);
    Route::get('/cases/{case}/needs', [CaseController::class, 'needs']);
    Route::get('/cases/{case}/history', [CaseController::class, 'history']);
    Route::get('/cases/{case}/comparison', [CaseController::class, 'comparison']);
    Route::get('/cases/{case}/results', [CaseController::class, 'results']);
    Route::put('/cases/{case}/presence', [CaseController::class, 'presence']);
    Route::get('/projects/{project}/routines', [RoutineController::class, 'index']);
    Route::get('/routines/{routine}', [RoutineController::class, 'show']);
    Route::get('/projects/{project}/data-tables', [DataTableController::class, 'index']);
    Route::get('/data-tables/{table}', [DataTableController::class, 'show']);
    Route::get('/projects/{project}/suites', [SuiteController::class, 'index']);
    Route::get('/suites/{suite}', [SuiteController::class, 'show']);
    Route::get('/projects/{project}/filters', [SuiteController::class, 'filters']);
    Route::get('/projects/{project}/requirements', [SuiteController::class, 'requirements']);
    Route::get('/projects/{project}/lists', [ListController::class, 'show']);
    Route::get('/projects/{project}/case-inbox', [CaseMessageController::class, 'inbox']);
    Route::get('/projects/{project}/case-care', [CaseMessageController::class, 'care']);
    Route::get('/case-imports/{import}', [CaseExchangeController::class, 'show']);
    Route::get('/projects/{project}/case-template', [CaseExchangeController::class, 'template']);
    Route::get('/case-exports/{export}', [CaseExchangeController::class, 'exported']);
    Route::get('/case-exports/{export}/file', [CaseExchangeController::class, 'file']);
    Route::get('/projects/{project}/files/{sha256}', [FileController::class, 'show']);
    Route::get('/projects/{project}/files/{sha256}/thumbnail', [FileController::class, 'thumbnail']);

    Route::get('/projects/{project}/cycles', [CycleController::class, 'index']);
    Route::get('/projects/{project}/milestones', [MilestoneController::class, 'index']);
    Route::get('/projects/{project}/planning-setup', [PlanningSetupController::class, 'show']);
    Route::post('/projects/{project}/axis-checks', [PlanningSetupController::class, 'check']);
    Route::post('/projects/{project}/selection-counts', [PlanController::class, 'count']);
    Route::get('/projects/{project}/queue', [QueueController::class, 'index']);
    Route::get('/cycles/{cycle}/plan', [PlanController::class, 'show']);
    Route::get('/cycles/{cycle}/log', [PlanController::class, 'log']);
    Route::get('/cycles/{cycle}/comparison', [ComparisonController::class, 'comparison']);
    Route::get('/projects/{project}/build-comparison', [ComparisonController::class, 'builds']);
    Route::post('/cycles/{cycle}/assignment-previews', [PlanController::class, 'previewAssignment']);
    Route::post('/cycles/{cycle}/short-plan-previews', [PlanController::class, 'previewShort']);
    Route::post('/cycles/{cycle}/clone-previews', [PlanController::class, 'previewAgain']);
    Route::post('/milestones/{milestone}/clone-previews', [MilestoneController::class, 'previewAgain']);
    Route::get('/entry-additions/{addition}', [PlanController::class, 'addition']);
    Route::get('/entries/{entry}/stops', [QueueController::class, 'stops']);
    Route::get('/entries/{entry}/new-version', [QueueController::class, 'drift']);
    Route::get('/notices', [NoticeController::class, 'index']);
    Route::get('/mails', [MailController::class, 'index']);
    Route::get('/cycles/{cycle}', [CycleController::class, 'show']);
    Route::get('/cycles/{cycle}/entries', [CycleController::class, 'entries']);
    Route::get('/cycles/{cycle}/entry-choices', [CycleController::class, 'choices']);
    Route::get('/cycles/{cycle}/trail', [CycleController::class, 'trail']);
    Route::get('/cycles/{cycle}/stops', [EntryController::class, 'stops']);
    Route::get('/entries/{entry}', [EntryController::class, 'show']);

    Route::get('/attempts/{attempt}', [AttemptController::class, 'show']);
    Route::get('/attempts/{attempt}/verification', [RecordController::class, 'verify']);
    Route::get('/cycles/{cycle}/verification', [RecordController::class, 'verifyCycle']);
    Route::get('/attempts/{attempt}/record', [RecordController::class, 'show']);
    Route::get('/attempts/{attempt}/bundle', [RecordController::class, 'bundle']);
    Route::get('/attempts/{attempt}/earlier', [AttemptController::class, 'earlier']);
    Route::get('/attempts/{attempt}/known-defects', [AttemptController::class, 'known']);
    Route::get('/evidence/{evidence}/marked', [EvidenceController::class, 'marked']);
    Route::get('/evidence/{evidence}/comparison', [EvidenceController::class, 'comparison']);
    Route::get('/evidence/{evidence}/difference', [EvidenceController::class, 'difference']);
    Route::get('/attempts/{attempt}/defect-draft', [AttemptController::class, 'draft']);
    Route::get('/evidence/{evidence}/file', [EvidenceController::class, 'file']);
    Route::get('/evidence/{evidence}/thumbnail', [EvidenceController::class, 'thumbnail']);

    Route::get('/projects/{project}/defects', [DefectListController::class, 'index']);
    Route::get('/projects/{project}/likely-defects', [DefectListController::class, 'likely']);
    Route::get('/projects/{project}/tracker', [TrackerController::class, 'show']);
    Route::get('/projects/{project}/defect-export', [DefectListController::class, 'export']);
    Route::get('/projects/{project}/defect-choices', [DefectListController::class, 'choices']);
    Route::get('/defects/{defect}', [DefectController::class, 'show']);
    Route::get('/defects/{defect}/reproduction', [ReproductionController::class, 'show']);
    Route::get('/defects/{defect}/retests', [ReproductionController::class, 'retests']);

    Route::middleware(Idempotent::class)->group(function (): void {
        Route::patch('/account', [AccountController::class, 'rename']);
        Route::patch('/account/preferences', [AccountController::class, 'prefer']);
        Route::put('/account/password', [AccountController::class, 'password'])->middleware('throttle:password');
        Route::post('/account/second-factor', [AccountController::class, 'beginFactor']);
        Route::put('/account/second-factor', [AccountController::class, 'confirmFactor'])->middleware('throttle:password');
        Route::post('/account/second-factor-removals', [AccountController::class, 'dropFactor'])->middleware('throttle:password');
        Route::delete('/account/sessions', [AccountController::class, 'endOthers']);
        Route::delete('/account/sessions/{session}', [AccountController::class, 'end']);
        Route::post('/projects', [InstallationController::class, 'make']);
        Route::post('/installation/projects/{id}/archivings', [InstallationController::class, 'archive']);
        Route::post('/installation/projects/{id}/deletions', [InstallationController::class, 'delete']);
        Route::post('/installation/mail-tests', [InstallationController::class, 'tryMail'])->middleware('throttle:password');
        Route::post('/installation/storage-tests', [InstallationController::class, 'tryStorage'])->middleware('throttle:password');
        Route::post('/installation/projects/{id}/restorations', [InstallationController::class, 'restore']);
        Route::post('/installation/people/{id}/factor-removals', [InstallationController::class, 'dropFactor']);
        Route::put('/installation/people/{id}/ownership', [InstallationController::class, 'owner']);
        Route::patch('/projects/{project}/access', [AccessController::class, 'update']);
        Route::post('/projects/{project}/invitations', [PeopleController::class, 'invite']);
        Route::post('/invitations/{invitation}/sendings', [PeopleController::class, 'again']);
        Route::post('/invitations/{invitation}/addresses', [PeopleController::class, 'address']);
        Route::delete('/invitations/{invitation}', [PeopleController::class, 'withdraw']);
        Route::put('/projects/{project}/people/{person}/role', [PeopleController::class, 'role']);
        Route::post('/projects/{project}/people/{person}/departures', [PeopleController::class, 'leave']);
        Route::post('/projects/{project}/cases', [CaseController::class, 'store']);
        Route::put('/cases/{case}', [CaseController::class, 'update']);
        Route::post('/cases/{case}/restorations', [CaseController::class, 'bringBack']);
        Route::post('/cases/{case}/reviews', [CaseController::class, 'review']);
        Route::post('/cases/{case}/routines', [CaseController::class, 'extract']);
        Route::post('/cases/{case}/messages', [CaseMessageController::class, 'store']);
        Route::post('/projects/{project}/case-differences', [CaseMessageController::class, 'differ']);
        Route::post('/case-messages/{message}/answers', [CaseMessageController::class, 'answer']);
        Route::post('/case-messages/{message}/removals', [CaseMessageController::class, 'remove']);
        Route::post('/projects/{project}/case-acts', [CaseBulkController::class, 'store']);
        Route::post('/case-acts/{act}/undo', [CaseBulkController::class, 'undo']);
        Route::post('/projects/{project}/folders', [FolderController::class, 'store']);
        Route::patch('/folders/{folder}', [FolderController::class, 'update']);
        Route::delete('/folders/{folder}', [FolderController::class, 'destroy']);
        Route::post('/projects/{project}/routines', [RoutineController::class, 'store']);
        Route::put('/routines/{routine}', [RoutineController::class, 'update']);
        Route::delete('/routines/{routine}', [RoutineController::class, 'destroy']);
        Route::post('/routines/{routine}/restorations', [RoutineController::class, 'restore']);
        Route::post('/projects/{project}/data-tables', [DataTableController::class, 'store']);
        Route::put('/data-tables/{table}', [DataTableController::class, 'update']);
        Route::delete('/data-tables/{table}', [DataTableController::class, 'destroy']);
        Route::post('/data-tables/{table}/restorations', [DataTableController::class, 'restore']);
        Route::post('/projects/{project}/suites', [SuiteController::class, 'store']);
        Route::patch('/suites/{suite}', [SuiteController::class, 'update']);
        Route::post('/suites/{suite}/acceptances', [SuiteController::class, 'accept']);
        Route::delete('/suites/{suite}', [SuiteController::class, 'destroy']);
        Route::post('/suites/{suite}/restorations', [SuiteController::class, 'restore']);
        Route::post('/projects/{project}/filters', [SuiteController::class, 'keep']);
        Route::delete('/filters/{filter}', [SuiteController::class, 'drop']);
        Route::put('/projects/{project}/lists/types', [ListController::class, 'types']);
        Route::put('/projects/{project}/lists/priorities', [ListController::class, 'priorities']);
        Route::put('/projects/{project}/lists/fields', [ListController::class, 'fields']);
        Route::put('/projects/{project}/lists/components', [ListController::class, 'components']);
        Route::put('/projects/{project}/lists/defect-fields', [ListController::class, 'defectFields']);
        Route::post('/projects/{project}/labels', [ListController::class, 'addLabels']);
        Route::patch('/projects/{project}/labels', [ListController::class, 'renameLabel']);
        Route::post('/projects/{project}/files', [FileController::class, 'store']);
        Route::post('/projects/{project}/case-imports', [CaseExchangeController::class, 'upload']);
        Route::post('/case-imports/{import}/mapping', [CaseExchangeController::class, 'map']);
        Route::post('/case-imports/{import}/start', [CaseExchangeController::class, 'start']);
        Route::post('/case-imports/{import}/cancel', [CaseExchangeController::class, 'cancel']);
        Route::post('/case-imports/{import}/undo', [CaseExchangeController::class, 'undo']);
        Route::post('/projects/{project}/case-exports', [CaseExchangeController::class, 'export']);
        Route::post('/case-exports/{export}/cancel', [CaseExchangeController::class, 'stopExport']);
        Route::post('/projects/{project}/cycles', [PlanController::class, 'store']);
        Route::patch('/cycles/{cycle}', [PlanController::class, 'update']);
        Route::post('/cycles/{cycle}/moves', [PlanController::class, 'move']);
        Route::post('/cycles/{cycle}/sign-offs', [PlanController::class, 'signOff']);
        Route::post('/cycles/{cycle}/log/{line}/removals', [PlanController::class, 'removeWords'])->whereNumber('line');
        Route::post('/projects/{project}/setup-log/{setupAct}/removals', [SetupLogController::class, 'remove'])->whereNumber('setupAct');
        Route::post('/projects/{project}/setup-log/{setupAct}/undo', [SetupLogController::class, 'undo'])->whereNumber('setupAct');
        Route::post('/cycles/{cycle}/clones', [PlanController::class, 'clone']);
        Route::post('/cycles/{cycle}/entries', [PlanController::class, 'add']);
        Route::post('/entry-additions/{addition}/cancel', [PlanController::class, 'cancel']);
        Route::post('/cycles/{cycle}/entry-acts', [PlanController::class, 'act']);
        Route::post('/projects/{project}/cycle-acts', [PlanController::class, 'actOnCycles']);
        Route::post('/plan-acts/{planAct}/undo', [PlanController::class, 'undo']);
        Route::post('/cycles/{cycle}/assignments', [PlanController::class, 'assign']);
        Route::post('/cycles/{cycle}/short-plans', [PlanController::class, 'short']);
        Route::post('/projects/{project}/milestones', [MilestoneController::class, 'store']);
        Route::patch('/milestones/{milestone}', [MilestoneController::class, 'update']);
        Route::delete('/milestones/{milestone}', [MilestoneController::class, 'destroy']);
        Route::post('/milestones/{milestone}/clones', [MilestoneController::class, 'clone']);
        Route::put('/projects/{project}/axes', [PlanningSetupController::class, 'axes']);
        Route::post('/projects/{project}/configurations', [PlanningSetupController::class, 'make']);
        Route::patch('/configurations/{configuration}', [PlanningSetupController::class, 'rename']);
        Route::delete('/configurations/{configuration}', [PlanningSetupController::class, 'remove']);
        Route::post('/projects/{project}/releases', [PlanningSetupController::class, 'release']);
        Route::patch('/releases/{release}', [PlanningSetupController::class, 'renameRelease']);
        Route::delete('/releases/{release}', [PlanningSetupController::class, 'removeRelease']);
        Route::post('/projects/{project}/builds', [PlanningSetupController::class, 'build']);
        Route::patch('/builds/{build}', [PlanningSetupController::class, 'changeBuild']);
        Route::delete('/builds/{build}', [PlanningSetupController::class, 'removeBuild']);
        Route::put('/projects/{project}/calendar', [PlanningSetupController::class, 'calendar']);
        Route::put('/projects/{project}/environments', [PlanningSetupController::class, 'environments']);
        Route::post('/projects/{project}/capacity-imports', [PlanningSetupController::class, 'importCapacity']);
        Route::put('/projects/{project}/people/{person}/capacity', [PlanningSetupController::class, 'capacity']);
        Route::put('/projects/{project}/lists/milestone-types', [ListController::class, 'milestoneTypes']);
        Route::put('/projects/{project}/lists/phases', [ListController::class, 'phases']);
        Route::put('/cases/{case}/needs', [CaseController::class, 'writeNeeds']);
        Route::post('/entries/{entry}/looks', [QueueController::class, 'ask']);
        Route::post('/entries/{entry}/looked', [QueueController::class, 'looked']);
        Route::post('/entries/{entry}/stops', [QueueController::class, 'stop']);
        Route::delete('/entries/{entry}/stops', [QueueController::class, 'letGo']);
        Route::post('/entries/{entry}/versions', [QueueController::class, 'take']);
        Route::post('/attempts/{attempt}/time-seen', [QueueController::class, 'timeSeen']);
        Route::post('/late-commands/{lateCommand}/judgements', [QueueController::class, 'late']);
        Route::post('/notices/read', [NoticeController::class, 'read']);
        Route::post('/entries/{entry}/retests', [EntryController::class, 'retest']);
        Route::post('/entries/{entry}/removals', [EntryController::class, 'remove']);
        Route::post('/entries/{entry}/attempts', [AttemptController::class, 'store']);
        Route::post('/entries/{walked}/device-attempts', [AttemptController::class, 'takeIn']);
        Route::post('/cycles/{cycle}/list-verdicts', [EntryController::class, 'judge']);
        // What is recorded changes no setup.
        Route::withoutMiddleware(NameActor::class)->group(function (): void {
            Route::post('/attempts/{attempt}/rounds', [AttemptController::class, 'round']);
            Route::post('/attempts/{attempt}/tries', [AttemptController::class, 'tried']);
            Route::post('/attempts/{attempt}/away', [AttemptController::class, 'away']);
            Route::post('/attempts/{attempt}/surroundings', [AttemptController::class, 'surroundings']);
            Route::post('/attempts/{attempt}/removals', [RecordController::class, 'remove']);
            Route::post('/attempts/{attempt}/verdicts', [AttemptController::class, 'verdict']);
            Route::post('/attempts/{attempt}/notes', [AttemptController::class, 'note']);
            Route::post('/attempts/{attempt}/finish', [AttemptController::class, 'finish']);
            Route::post('/attempts/{attempt}/time', [AttemptController::class, 'time']);
            Route::post('/attempts/{attempt}/take-over', [AttemptController::class, 'takeOver']);
            Route::post('/attempts/{attempt}/evidence', [EvidenceController::class, 'store']);
            Route::patch('/evidence/{evidence}', [EvidenceController::class, 'update']);
            Route::delete('/evidence/{evidence}', [EvidenceController::class, 'destroy']);
            Route::post('/evidence/{evidence}/markups', [EvidenceController::class, 'markUp']);
            Route::post('/evidence/{evidence}/redactions', [EvidenceController::class, 'redact']);
            Route::post('/evidence/{evidence}/moves', [EvidenceController::class, 'move']);
            Route::post('/evidence/{evidence}/comparisons', [EvidenceController::class, 'compare']);
            Route::post('/evidence/{evidence}/removals', [EvidenceController::class, 'remove']);
        });
        Route::put('/projects/{project}/files/{sha256}/ignored-regions', [FileController::class, 'ignore']);
        Route::put('/projects/{project}/policies', [WalkSetupController::class, 'policies']);
        Route::put('/projects/{project}/storage', [WalkSetupController::class, 'storage']);
        Route::put('/projects/{project}/lists/reasons-pass', [WalkSetupController::class, 'reasonsPass']);
        Route::put('/projects/{project}/lists/reasons-fail', [WalkSetupController::class, 'reasonsFail']);
        Route::put('/projects/{project}/lists/reasons-blocked', [WalkSetupController::class, 'reasonsBlocked']);
        Route::put('/projects/{project}/lists/reasons-not-applicable', [WalkSetupController::class, 'reasonsNotApplicable']);
        Route::post('/projects/{project}/today-seen', [TodayController::class, 'seen']);
        Route::put('/projects/{project}/scratch', [TodayController::class, 'write']);
        Route::post('/projects/{project}/defects', [DefectController::class, 'store']);
        Route::post('/defects/{defect}/links', [DefectController::class, 'link']);
        Route::post('/defects/{defect}/moves', [DefectController::class, 'move']);
        Route::patch('/defects/{defect}', [DefectController::class, 'update']);
        Route::post('/defects/{defect}/retests', [ReproductionController::class, 'ask']);
        Route::post('/defects/{defect}/relations', [DefectController::class, 'relate']);
        Route::delete('/defects/{defect}/relations', [DefectController::class, 'unrelate']);
        Route::post('/defects/{defect}/watchers', [DefectController::class, 'watch']);
        Route::delete('/defects/{defect}/watchers', [DefectController::class, 'unwatch']);
        Route::post('/projects/{project}/defect-act-previews', [DefectActController::class, 'preview']);
        Route::post('/projects/{project}/defect-acts', [DefectActController::class, 'store']);
        Route::post('/defect-acts/{defectAct}/undo', [DefectActController::class, 'undo']);
        Route::patch('/projects/{project}/tracker', [TrackerController::class, 'save']);
        Route::delete('/projects/{project}/tracker', [TrackerController::class, 'remove']);
        Route::post('/projects/{project}/tracker-tries', [TrackerController::class, 'try']);
        Route::post('/projects/{project}/tracker-secrets', [TrackerController::class, 'secret']);
        Route::post('/defects/{defect}/tracker-calls', [TrackerController::class, 'file']);
        Route::post('/tracker-calls/{call}/repetitions', [TrackerController::class, 'again']);
        Route::delete('/tracker-calls/{call}', [TrackerController::class, 'leaveOut']);
        Route::post('/projects/{project}/defect-filters', [DefectListController::class, 'keep']);
        Route::post('/defects/{defect}/comments', [DefectTalkController::class, 'comment']);
        Route::patch('/defect-comments/{comment}', [DefectTalkController::class, 'mend']);
        Route::post('/defect-comments/{comment}/removals', [DefectTalkController::class, 'removeComment']);
        Route::post('/defects/{defect}/changes/{defectChange}/removals', [DefectTalkController::class, 'removeNote'])->whereUuid(
            'defectChange',
        );
        Route::post('/defects/{defect}/files', [DefectFileController::class, 'store']);
        Route::get('/defect-files/{defectFile}/file', [DefectFileController::class, 'file']);
        Route::get('/defect-files/{defectFile}/thumbnail', [DefectFileController::class, 'thumbnail']);
        Route::delete('/defect-files/{defectFile}', [DefectFileController::class, 'takeBack']);
        Route::post('/defect-files/{defectFile}/removals', [DefectFileController::class, 'remove']);
        require __DIR__ . '/sessions.php';
        require __DIR__ . '/coverage.php';
    });
});
