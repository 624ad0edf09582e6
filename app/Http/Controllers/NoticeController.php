<?php

declare(strict_types=1);

namespace LucidStep\App\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use Illuminate\Support\Carbon;
use Illuminate\Support\Facades\DB;
use LucidStep\App\Http\Docs\Get;
use LucidStep\App\Http\Docs\Post;
use LucidStep\App\Http\Requests\StampRequest;
use LucidStep\App\Http\Resources\CaughtMail;
use LucidStep\App\Http\Resources\NoticeLine;
use LucidStep\App\Http\Resources\Notices;
use LucidStep\App\Http\Resources\Zulu;
use LucidStep\App\Policies\Memberships;
use Symfony\Component\HttpKernel\Exception\NotFoundHttpException;

/**
 * Notices to the person, and the mails that were caught where none are sent.
 */
final readonly class NoticeController
{
    public function __construct(private Memberships $memberships)
    {
    }

    #[Get('/notices', 'The newest notices to the person', Notices::class)]
    public function index(Request $request): JsonResponse
    {
        $mine = DB::table('notices')->where('user_id', $this->memberships->person($request)->id);
        $items = (clone $mine)->orderByDesc('id')->limit(50)->get()->map(static fn (object $n): NoticeLine => new NoticeLine($n->id, $n->text, $n->link, Zulu::time($n->created_at) ?? '', null !== $n->read_at));

        return new JsonResponse(new Notices((clone $mine)->whereNull('read_at')->count(), array_values($items->all())));
    }

    #[Post('/notices/read', 'All notices are read', null, StampRequest::class, 204)]
    public function read(StampRequest $request): JsonResponse
    {
        DB::table('notices')->where('user_id', $request->person()->id)->whereNull('read_at')->update(['read_at' => Carbon::now()]);

        return new JsonResponse(null, 204);
    }

    #[Get('/mails', 'The mails that were caught instead of sent', CaughtMail::class, true)]
    public function mails(Request $request): JsonResponse
    {
        // They are of all projects: shown in the demo only, where nothing is real.
        $leads = DB::table('memberships')->where('user_id', $this->memberships->person($request)->id)->whereIn('role', ['lead', 'admin'])->exists();
        if (!config('lucid.demo') || 'catcher' !== config('mail.default') || !$leads) {
            throw new NotFoundHttpException();
        }

        return new JsonResponse(DB::table('caught_mails')->orderByDesc('id')->limit(200)->get()->map(static fn (object $m): CaughtMail => new CaughtMail($m->id, $m->to, $m->subject, $m->text, Zulu::time($m->at) ?? ''))->all());
    }
}
