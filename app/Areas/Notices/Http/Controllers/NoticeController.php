<?php

declare(strict_types=1);

namespace LucidStep\App\Areas\Notices\Http\Controllers;

use Illuminate\Http\JsonResponse;
use Illuminate\Http\Request;
use LucidStep\App\Areas\Notices\Actions\MarkNoticesRead;
use LucidStep\App\Areas\Notices\Data\Notices;
use LucidStep\App\Areas\Notices\Queries\ReadNotices;
use LucidStep\App\Support\Access\Memberships;
use LucidStep\App\Support\Access\Needs;
use LucidStep\App\Support\Http\StampRequest;
use LucidStep\App\Support\OpenApi\Get;
use LucidStep\App\Support\OpenApi\Post;
use LucidStep\Core\Access\Permission;

/**
 * Notices to the person, and the mails that were caught where none are sent.
 */
final readonly class NoticeController
{
    public function __construct(private Memberships $memberships, private ReadNotices $read) {}

    #[Get('/notices', 'The newest notices to the person', Notices::class)]
    public function index(Request $request): JsonResponse
    {
        return new JsonResponse($this->read->notices($this->memberships->person($request)));
    }

    #[Post('/notices/read', 'All notices are read', null, StampRequest::class, 204)]
    #[Needs(Permission::Read)]
    public function read(StampRequest $request, MarkNoticesRead $mark): JsonResponse
    {
        $mark($request->person());

        return new JsonResponse(null, 204);
    }
}
