/* Made from the migrations by `npm run tables`; changes belong there. */

/** Every table with its columns, as the driver gives them; JSON is the shape that is kept in it. */
export interface Tables {
  address_change: {
    at: Date;
    from_point_id: number;
    id: number;
    organization_id: number;
    supporter_id: number;
    to_point_id: number;
  };
  address_hold: {
    asks: number;
    batch_id: number | null;
    contact_point_id: number;
    held_at: Date;
    id: number;
    organization_id: number;
    reason: string;
    released_at: Date | null;
    released_by: number | null;
    released_why: string | null;
  };
  audit: {
    act: string;
    actor_id: number | null;
    after_value: string | null;
    at: Date;
    back: string | null;
    before_value: string | null;
    id: number;
    organization_id: number;
    subject: string;
    subject_id: number;
    undone_at: Date | null;
    words: string;
  };
  automation: {
    again: any;
    cause: import('@goodword/core/automations').Cause;
    changed_by: number | null;
    chapter_id: number | null;
    excepted: import('@goodword/core/segment').Rule | null;
    id: number;
    is_on: any;
    looked_at: Date | null;
    made_at: Date;
    made_by: number | null;
    name: string;
    on_since: Date | null;
    organization_id: number;
    since: Date | null;
    stops: import('@goodword/core/campaigns').FallCause[];
    version: number;
  };
  automation_step: {
    automation_id: number;
    message_id: number;
    organization_id: number;
    position: number;
    wait: import('@goodword/core/automations').Wait;
  };
  automation_visit: {
    automation_id: number;
    cause_key: string;
    caused_at: Date;
    due_at: Date | null;
    id: number;
    looked: any;
    organization_id: number;
    state: 'waiting' | 'held' | 'done' | 'ended';
    step: number;
    supporter_id: number;
    taken_at: Date;
    why: string | null;
  };
  batch: {
    across: number;
    chapter_id: number;
    created_at: Date;
    created_by: number | null;
    draft: import('@goodword/core/contract').IntakeDraft | null;
    draft_by: number | null;
    draft_version: number;
    ended_at: Date | null;
    feed_run_id: number | null;
    file_gone_at: Date | null;
    file_name: string;
    found: import('@goodword/core/intake').FileFindings | null;
    guesses: import('@goodword/core/intake').Guess[] | null;
    id: number;
    mixed: number;
    name: string;
    next_row: number;
    organization_id: number;
    plan: import('@goodword/core/intake').IntakePlan | null;
    problem: string | null;
    rate: number | null;
    reading: import('@goodword/core/intake').ParseOptions | null;
    resolved: string | null;
    row_count: number;
    seen_at: Date | null;
    state: import('@goodword/core/contract').BatchState;
    stay_no: number;
    stayed: number;
    storage_key: string;
    text_key: string | null;
    what: import('@goodword/core/intake').BatchKind;
    will: import('@goodword/core/contract').BatchWill | null;
  };
  batch_before: {
    batch_id: number;
    date_value: number | null;
    existed: number;
    field_id: number;
    month_day: number | null;
    number_value: number | null;
    organization_id: number;
    supporter_id: number;
    text_value: string | null;
  };
  batch_decision: {
    batch_id: number;
    keep: string;
    made_at: Date;
    made_by: number | null;
    organization_id: number;
    outcome: 'merge' | 'new' | 'skip';
    row_no: number;
    with_id: number | null;
  };
  batch_gift: {
    amount: number;
    appeal: string | null;
    batch_id: number;
    currency: string;
    given_on: number;
    organization_id: number;
    own_id: string | null;
    recurring: number;
    row_no: number;
  };
  batch_hold: {
    batch_id: number;
    contact_point_id: number;
    organization_id: number;
  };
  batch_more: {
    batch_id: number;
    kind: 'email' | 'mobile' | 'tag' | 'post' | 'stage' | 'signed' | 'words' | 'status' | 'refused';
    n: number;
    normal: string;
    organization_id: number;
    row_no: number;
    value: string;
  };
  batch_roster_before: {
    batch_id: number;
    organization_id: number;
    stage: string;
    supporter_id: number;
  };
  batch_row: {
    batch_id: number;
    candidates: string | null;
    chapter_id: number | null;
    country: string | null;
    email: string | null;
    email_says: number | null;
    email_shown: string | null;
    external_id: string | null;
    first_name: string;
    hint: string;
    last_name: string;
    line: string | null;
    met_by: string | null;
    mobile: string | null;
    mobile_shown: string | null;
    organization_id: number;
    place_said: number;
    postcode: string | null;
    reason: string;
    region: string | null;
    row_no: number;
    same_as_row: number | null;
    stands: number;
    stays: number;
    stranger: number;
    supporter_id: number;
    text_says: number | null;
    verdict:
      | 'new'
      | 'shares'
      | 'update'
      | 'same'
      | 'here'
      | 'look'
      | 'skipped'
      | 'no'
      | 'hold'
      | 'gift'
      | 'doubled'
      | 'aside'
      | 'failed';
    why: string | null;
  };
  batch_value: {
    batch_id: number;
    date_value: number | null;
    field_id: number;
    month_day: number | null;
    number_value: number | null;
    organization_id: number;
    row_no: number;
    text_value: string | null;
  };
  bulk: {
    act: import('@goodword/core/contract').BulkAct;
    changed: number;
    chapter_id: number | null;
    done: number;
    ended_at: Date | null;
    file_key: string | null;
    file_name: string | null;
    id: number;
    made_at: Date;
    made_by: number | null;
    next_id: number;
    organization_id: number;
    people: number;
    problem: string | null;
    state: import('@goodword/core/contract').BulkState;
    told: string;
    words: string;
  };
  bulk_member: {
    bulk_id: number;
    changed: number;
    organization_id: number;
    supporter_id: number;
    was: string | null;
  };
  call_list: {
    campaign_id: number | null;
    chapter_id: number | null;
    id: number;
    made_at: Date;
    made_by: number | null;
    message_id: number | null;
    name: string;
    organization_id: number;
    purpose: string;
    script: string;
  };
  call_list_member: {
    answered_at: Date | null;
    answered_by: number | null;
    call_list_id: number;
    note_id: number | null;
    organization_id: number;
    outcome: string | null;
    position: number;
    supporter_id: number;
    suppressed: string | null;
  };
  campaign: {
    appeal_code: string | null;
    changed_by: number | null;
    chapter_id: number | null;
    ends_at: string[] | null;
    ends_for: import('@goodword/core/campaigns').FallCause[] | null;
    first_day: number | null;
    goal_amount: number | null;
    goal_by: number | null;
    goal_kind: 'people' | 'gifts' | 'money' | null;
    id: number;
    is_open: number;
    joins_from: number | null;
    kind: 'appeal' | 'thank-you' | 'update';
    made_at: Date;
    made_by: number | null;
    name: string;
    organization_id: number;
    stages: string[];
    version: number;
  };
  campaign_off: {
    campaign_id: number;
    organization_id: number;
    supporter_id: number;
  };
  campaign_step: {
    campaign_id: number;
    day: number;
    message_id: number;
    minutes: number;
    organization_id: number;
    own_time: any;
    rule: import('@goodword/core/segment').Rule | null;
  };
  change_log: {
    at: Date;
    id: number;
    ids: string | null;
    organization_id: number;
    ref: number;
    what: string;
  };
  chapter: {
    id: number;
    name: string;
    organization_id: number;
    places: string;
    postal_address: string;
  };
  comparison: {
    chosen_id: number | null;
    decided_at: Date | null;
    decided_by: number | null;
    hours: number;
    measure: 'clicked' | 'gave' | 'replied' | 'opened';
    message_id: number;
    organization_id: number;
    seed: number;
    share: number;
    version: number;
  };
  confirmation: {
    asked_at: Date;
    asks: string;
    batch_id: number | null;
    channel: 'email' | 'text' | 'call' | 'post';
    confirmed_at: Date | null;
    contact_point_id: number;
    detail: string | null;
    due_at: Date | null;
    expires_at: Date;
    form_id: number | null;
    id: number;
    kind: 'join' | 'address';
    mailbox: string;
    organization_id: number;
    pending: string | null;
    request: string | null;
    sent: number;
    state: 'waiting' | 'in-flight' | 'sent' | 'confirmed' | 'dropped';
    supporter_id: number;
    version: number | null;
  };
  confirmation_sent: {
    at: Date;
    channel: 'email' | 'text' | 'call' | 'post';
    confirmation_id: number;
    contact_point_id: number;
    id: number;
    mailbox: string;
    organization_id: number;
    words: string;
  };
  contact_point: {
    batch_id: number | null;
    do_not_contact: number;
    hold_at: Date | null;
    hold_reason: string | null;
    id: number;
    kind: 'email' | 'mobile' | 'post';
    line: 'mobile' | 'landline' | 'voip' | 'other' | null;
    loose: string | null;
    never_ask: number;
    normal: string;
    on_hold: number;
    organization_id: number;
    parts: string | null;
    shown: string;
    tail: string | null;
  };
  delivery: {
    attempts: number;
    channel: 'email' | 'text' | 'post' | 'call';
    clicked: number;
    contact_point_id: number | null;
    counts: number;
    detail: string | null;
    door_verdict: string | null;
    entry_id: number | null;
    fault: 'address' | 'full' | 'policy' | 'provider' | 'message' | 'unknown' | null;
    id: number;
    lease_until: Date | null;
    leased_by: string | null;
    left_it: number;
    message_id: number;
    not_before: Date | null;
    occasion: number;
    opened: number;
    organization_id: number;
    provider_key: string;
    replied: number;
    sent_at: Date | null;
    state:
      | 'suppressed'
      | 'ready'
      | 'leased'
      | 'in-flight'
      | 'sent'
      | 'delivered'
      | 'bounced'
      | 'failed'
      | 'door'
      | 'unsure'
      | 'stopped'
      | 'undecided'
      | 'kept';
    supporter_id: number;
    verdict: string;
  };
  delivery_event: {
    at: Date;
    delivery_id: number;
    detail: string;
    id: number;
    kind:
      | 'sent'
      | 'delivered'
      | 'bounced'
      | 'opened'
      | 'clicked'
      | 'replied'
      | 'left'
      | 'door'
      | 'unsure'
      | 'failed'
      | 'complained'
      | 'settled';
    message_id: number;
    organization_id: number;
    supporter_id: number;
  };
  do_not_contact: {
    added_by: number | null;
    created_at: Date;
    how: string;
    id: number;
    key_hash: string;
    kind: 'email' | 'mobile' | 'domain' | 'range';
    note: string;
    organization_id: number;
    range_from: string | null;
    range_to: string | null;
    shown: string | null;
  };
  evidence: {
    added_at: Date;
    added_by: number | null;
    bytes: number;
    id: number;
    mime: string;
    name: string;
    organization_id: number;
    sha256: string;
    storage_key: string | null;
    supporter_id: number;
  };
  feed: {
    across: any;
    changed_by: number | null;
    chapter_id: number;
    etag: string | null;
    failures: number;
    hook_key: string | null;
    hook_secret: string | null;
    id: number;
    is_on: any;
    made_at: Date;
    made_by: number | null;
    name: string;
    next_run_at: Date | null;
    on_since: Date | null;
    organization_id: number;
    plan: import('@goodword/core/feeds').FeedPlan;
    position: string | null;
    problem: string | null;
    source_id: number;
    told_up_to: number;
    version: number;
  };
  feed_hook: {
    at: Date;
    feed_id: number;
    hook_id: string;
    id: number;
    is_open: any;
    organization_id: number;
  };
  feed_notice: {
    attempts: number;
    channel: import('@goodword/core/permission').Channel;
    entry_id: number;
    feed_id: number;
    id: number;
    next_at: Date;
    organization_id: number;
    problem: string | null;
    record_key: string;
    said_at: Date;
    scope: import('@goodword/core/permission').Scope;
    state: 'waiting' | 'told' | 'dropped';
    supporter_id: number;
    told_at: Date | null;
  };
  feed_record: {
    digest: string;
    feed_id: number;
    first_on: string;
    is_gone: any;
    looks_batch_id: number | null;
    looks_row_no: number | null;
    organization_id: number;
    record_key: string;
    run_id: number;
    says: string;
    supporter_id: number | null;
  };
  feed_run: {
    anyway: any;
    batch_id: number | null;
    began_at: Date;
    began_by: number | null;
    cause: import('@goodword/core/contract').RunCause;
    changed: number;
    ended_at: Date | null;
    etag: string | null;
    feed_id: number;
    fresh: number;
    gone: number;
    id: number;
    is_whole: any;
    looks: number;
    looks_batch_id: number | null;
    not_taken: number;
    organization_id: number;
    position: string | null;
    problem: string | null;
    same: number;
    state: import('@goodword/core/contract').RunState;
  };
  feed_run_row: {
    digest: string;
    first_on: string;
    is_gone: any;
    organization_id: number;
    record_key: string;
    row_no: number;
    run_id: number;
    says: string;
  };
  feed_source: {
    changed_by: number | null;
    id: number;
    kind: import('@goodword/core/contract').SourceKind;
    made_at: Date;
    name: string;
    organization_id: number;
    token: string | null;
    url: string;
    version: number;
  };
  field: {
    batch_id: number | null;
    changed_by: number | null;
    choices: string[] | null;
    fallback: string | null;
    help: string;
    id: number;
    is_required: number;
    is_sensitive: number;
    name: string;
    organization_id: number;
    position: number;
    section: string;
    type: import('@goodword/core/fields').FieldType;
    version: number;
  };
  field_file: {
    added_at: Date;
    added_by: number | null;
    bytes: number;
    field_id: number;
    id: number;
    mime: string;
    name: string;
    organization_id: number;
    storage_key: string | null;
    supporter_id: number;
  };
  field_value: {
    date_value: number | null;
    field_id: number;
    month_day: number | null;
    number_value: number | null;
    organization_id: number;
    supporter_id: number;
    text_value: string | null;
  };
  form: {
    chapter_id: number | null;
    id: number;
    is_open: number;
    keyword: string | null;
    name: string;
    organization_id: number;
    slug: string;
    updated_at: Date;
    version: number;
  };
  form_count: {
    day: number;
    form_id: number;
    kind: 'seen' | 'begun' | 'joined' | 'confirmed';
    n: number;
    organization_id: number;
  };
  form_version: {
    definition: import('@goodword/core/forms').FormDefinition;
    form_id: number;
    made_at: Date;
    made_by: number | null;
    organization_id: number;
    version: number;
  };
  gift: {
    amount: number;
    appeal: string | null;
    batch_id: number | null;
    batch_row: number | null;
    currency: string | null;
    given_on: number;
    id: number;
    note: string;
    organization_id: number;
    own_id: string | null;
    recorded_at: Date;
    recorded_by: number | null;
    recurring: number;
    supporter_id: number;
  };
  house_key: {
    name: string;
    wrapped: string;
  };
  house_rules: {
    effects: import('@goodword/core/contract').RuleEffect[];
    id: number;
    made_at: Date;
    made_by: number | null;
    organization_id: number;
    rules: import('@goodword/core/permission').HouseRules;
    words: string;
  };
  household: {
    greeting: string | null;
    id: number;
    made_at: Date;
    organization_id: number;
  };
  image: {
    alt: string;
    bytes: number;
    created_at: Date;
    folder: string;
    height: number;
    id: number;
    mime: string;
    name: string;
    organization_id: number;
    storage_key: string;
    width: number;
  };
  image_size: {
    bytes: number;
    image_id: number;
    organization_id: number;
    storage_key: string;
    width: number;
  };
  job: {
    attempts: number;
    began_at: Date | null;
    cancel: number;
    chapter_id: number | null;
    created_at: Date;
    created_by: number | null;
    done: number | null;
    ended_at: Date | null;
    error: string | null;
    id: number;
    kind: string;
    lease_until: Date | null;
    leased_by: string | null;
    organization_id: number;
    ref_id: number;
    run_at: Date;
    state: 'waiting' | 'running' | 'done' | 'failed';
    total: number | null;
  };
  layout: {
    changed_by: number | null;
    chapter_id: number | null;
    chapter_key: number | null;
    columns: import('@goodword/core/intake').ColumnChoice[];
    header: string[];
    header_key: string;
    id: number;
    made_by: number | null;
    name: string;
    organization_id: number;
    used_at: Date;
    version: number;
    what: string;
  };
  letter_file: {
    first_number: number;
    id: number;
    kind: 'pdf' | 'csv';
    last_number: number;
    message_id: number;
    name: string;
    organization_id: number;
    storage_key: string;
  };
  list: {
    batch_id: number | null;
    by_form: number;
    changed_by: number | null;
    chapter_id: number | null;
    description: string;
    folder: string;
    id: number;
    is_public: number;
    name: string;
    on_preferences: number;
    organization_id: number;
    position: number;
    version: number;
    why: string;
  };
  look_group: {
    ids: any;
    message_id: number;
    organization_id: number;
    people: number;
    verdict: string;
  };
  mail_domain: {
    asked_at: Date;
    domain: string;
    organization_id: number;
    takes_mail: number;
  };
  merging: {
    gone_id: number;
    id: number;
    kept_id: number;
    made_at: Date;
    made_by: number | null;
    organization_id: number;
    undone_at: Date | null;
    was: string;
  };
  message: {
    answers_reply: number | null;
    ask: import('@goodword/core/letter').AskRule | null;
    body: string;
    changed_by: number | null;
    channel: 'email' | 'text' | 'post' | 'call';
    chapter_id: number | null;
    created_at: Date;
    go_asked_by: number | null;
    go_at: Date | null;
    go_by: number | null;
    go_note: string;
    go_state: 'asked' | 'back' | 'agreed' | null;
    go_version: number | null;
    group_version: number;
    id: number;
    in_reply_to: string | null;
    kept_seed: number | null;
    kept_share: number | null;
    leaves_at: Date | null;
    letter: import('@goodword/core/letter').LetterDoc | null;
    list_id: number | null;
    locale: string | null;
    name: string;
    organization_id: number;
    own_time: any;
    paused_why: string | null;
    personal_to: number | null;
    plainly: number;
    preheader: string;
    prepared_to: number;
    purpose: import('@goodword/core/permission').Purpose | null;
    recipients: import('@goodword/core/contract').Recipients;
    resumed_at: Date | null;
    said: string | null;
    scheduled_at: Date | null;
    seconded_by: number | null;
    seconded_group: number | null;
    seconded_reached: number;
    sender_id: number | null;
    spread_hours: number | null;
    started_at: Date | null;
    state: import('@goodword/core/contract').MessageState;
    subject: string;
    tag_triggers: import('@goodword/core/contract').TagTrigger[] | null;
    template_id: number | null;
    template_version: number | null;
    tested_at: Date | null;
    updated_at: Date;
    version: number;
    wording_of: number | null;
  };
  message_group: {
    message_id: number;
    organization_id: number;
    supporter_id: number;
  };
  message_letter: {
    delivery_id: number;
    message_id: number;
    number: number;
    organization_id: number;
  };
  message_letters: {
    asked: number;
    done: number;
    form: string;
    made: number;
    message_id: number;
    organization_id: number;
    posted_on: Date | null;
    problem: string | null;
    total: number;
  };
  message_link: {
    id: number;
    message_id: number;
    organization_id: number;
    position: number;
    url: string;
  };
  message_note: {
    answers_id: number | null;
    body: string;
    id: number;
    message_id: number;
    organization_id: number;
    quote: string;
    settled_at: Date | null;
    settled_by: number | null;
    written_at: Date;
    written_by: number | null;
  };
  message_proof: {
    began_at: Date;
    done: number;
    ended_at: Date | null;
    found: import('@goodword/core/proofs').FoundProof[] | null;
    group_version: number;
    message_id: number;
    organization_id: number;
    state: 'waiting' | 'running' | 'done' | 'failed';
    total: number;
    version: number;
  };
  note: {
    body: string;
    changed_at: Date | null;
    id: number;
    kind: 'note' | 'call';
    made_at: Date;
    made_by: number | null;
    organization_id: number;
    supporter_id: number;
  };
  organization: {
    changed_by: number | null;
    country: string;
    currency: string;
    file_days: number;
    fiscal_month: number;
    from_email: string;
    giving_page: string;
    house_style: import('@goodword/core/letter').HouseStyle | null;
    id: number;
    language: string;
    languages: import('@goodword/core/forms').Language[] | null;
    legal_name: string;
    link_url: string;
    list_domain: string;
    locale: string;
    logo_id: number | null;
    mail_limits: import('@goodword/core/delivery').MailLimits | null;
    name: string;
    postal_address: string;
    text_answers: import('@goodword/core/contract').TextAnswers | null;
    text_from: string;
    text_number: import('@goodword/core/delivery').TextNumber | null;
    text_price: number | null;
    time_zone: string;
    version: number;
  };
  people_view: {
    changed_by: number | null;
    chapter_id: number | null;
    chapter_key: number | null;
    descending: number;
    fields: number[];
    id: number;
    made_at: Date;
    made_by: number | null;
    name: string;
    organization_id: number;
    sort_by: Exclude<import('@goodword/core/contract').PeopleColumns['by'], number>;
    tree: import('@goodword/core/segment').Rule;
    version: number;
  };
  permission_entry: {
    batch_id: number | null;
    batch_row: number | null;
    by_person: number;
    channel: 'email' | 'text' | 'call' | 'post';
    contact_point_id: number | null;
    delivery_id: number | null;
    evidence_id: number | null;
    form_id: number | null;
    form_version: number | null;
    how: string;
    id: number;
    organization_id: number;
    origin: string | null;
    page: string | null;
    recorded_at: Date;
    recorded_by: number | null;
    reply_id: number | null;
    said_at: Date;
    scope: string;
    source: string;
    state: 'yes' | 'implied' | 'asked' | 'no' | 'pause' | 'start' | 'back';
    supporter_id: number | null;
    taken_back_at: Date | null;
    takes_back: number | null;
    until_at: Date | null;
    words: string;
  };
  permission_state: {
    asked_at: Date | null;
    asked_entry: number | null;
    channel: 'email' | 'text' | 'call' | 'post';
    contact_point_id: number;
    gift_at: Date | null;
    gift_entry: number | null;
    inquiry_at: Date | null;
    inquiry_entry: number | null;
    membership_at: Date | null;
    membership_entry: number | null;
    no_at: Date | null;
    no_entry: number | null;
    organization_id: number;
    own_yes_at: Date | null;
    own_yes_entry: number | null;
    pause_at: Date | null;
    pause_entry: number | null;
    pause_until: Date | null;
    scope: string;
    start_at: Date | null;
    start_entry: number | null;
    stated_at: Date | null;
    stated_entry: number | null;
    stop_at: Date | null;
    stop_entry: number | null;
    supporter_id: number;
    volunteering_at: Date | null;
    volunteering_entry: number | null;
    yes_at: Date | null;
    yes_entry: number | null;
  };
  place_before: {
    changed_by: number | null;
    country: string | null;
    id: number;
    organization_id: number;
    region: string | null;
    supporter_id: number;
    until_at: Date;
  };
  rate_limit: {
    expire: number | null;
    key: string;
    points: number;
  };
  reply: {
    aside_until: Date | null;
    assigned_to: number | null;
    at: Date;
    body: string;
    channel: 'email' | 'text';
    contact_point_id: number | null;
    delivery_id: number | null;
    handled_at: Date | null;
    id: number;
    keyword: string;
    mail_id: string | null;
    organization_id: number;
    provider_key: string;
    read_at: Date | null;
    received_at: Date | null;
    sender: string;
    subject: string;
    supporter_id: number | null;
  };
  reply_file: {
    bytes: number;
    id: number;
    mime: string;
    name: string;
    organization_id: number;
    refused: 'kind' | 'many' | 'empty' | null;
    reply_id: number;
    storage_key: string | null;
  };
  roster: {
    batch_id: number | null;
    campaign_id: number;
    organization_id: number;
    put_at: Date;
    put_by: number | null;
    stage: string;
    supporter_id: number;
  };
  rules_waiting: {
    based_on: number;
    loosens: string[];
    made_at: Date;
    made_by: number;
    organization_id: number;
    rules: import('@goodword/core/permission').HouseRules;
    words: string;
  };
  segment: {
    changed_by: number | null;
    chapter_id: number | null;
    id: number;
    name: string;
    organization_id: number;
    tree: import('@goodword/core/segment').Rule;
    updated_at: Date;
    version: number;
  };
  segment_size: {
    chapter_id: number;
    day: number;
    organization_id: number;
    people: number;
    segment_id: number;
  };
  segment_version: {
    id: number;
    name: string;
    organization_id: number;
    people: number | null;
    saved_at: Date;
    saved_by: number | null;
    segment_id: number;
    tree: import('@goodword/core/segment').Rule;
  };
  sender_check: {
    back_at: Date | null;
    back_signatures: { selector: string; holds: boolean }[] | null;
    back_tls: any | null;
    checked_at: Date | null;
    organization_id: number;
    records: import('@goodword/core/delivery').CheckedRecord[] | null;
    through_at: Date | null;
    through_fault: string | null;
    through_key: string | null;
  };
  session: {
    browser: string;
    chapter_id: number | null;
    created_at: Date;
    csrf: string;
    expires_at: Date;
    id: number;
    network: string;
    organization_id: number;
    seen_at: Date;
    teammate_id: number;
    token_hash: string;
  };
  sign_in_failure: {
    failures: number;
    key_hash: string;
    last_at: Date;
  };
  supporter: {
    batch_id: number | null;
    batch_row: number | null;
    block: string | null;
    chapter_id: number;
    country: string | null;
    created_at: Date;
    erased_at: Date | null;
    external_id: string | null;
    first_name: string;
    household_id: number | null;
    id: number;
    language: string | null;
    last_name: string;
    merged_into: number | null;
    organization_id: number;
    postcode: string | null;
    region: string | null;
    updated_at: Date;
  };
  supporter_contact: {
    batch_id: number | null;
    contact_point_id: number;
    kind: 'email' | 'mobile' | 'post';
    organization_id: number;
    position: number;
    supporter_id: number;
  };
  supporter_list: {
    added_at: Date;
    added_by: number | null;
    batch_id: number | null;
    list_id: number;
    organization_id: number;
    supporter_id: number;
  };
  supporter_tag: {
    added_at: Date;
    added_by: number | null;
    batch_id: number | null;
    message_id: number | null;
    organization_id: number;
    supporter_id: number;
    tag_id: number;
  };
  tag: {
    batch_id: number | null;
    chapter_id: number | null;
    handed_down: number;
    id: number;
    name: string;
    organization_id: number;
  };
  task: {
    asked_at: Date;
    contact_point_id: number | null;
    done_at: Date | null;
    done_by: number | null;
    id: number;
    kind: 'erasure' | 'stop';
    organization_id: number;
    outcome: string | null;
    reply_id: number | null;
    supporter_id: number | null;
    words: string;
  };
  teammate: {
    answers_to: string;
    chapter_ids: number[] | null;
    email: string;
    id: number;
    left_at: Date | null;
    mobile: string;
    name: string;
    organization_id: number;
    password_hash: string | null;
    picture_id: number | null;
    role: import('@goodword/core/team').Role;
    signature: string;
    signed_in_at: Date | null;
    title: string;
  };
  teammate_link: {
    detail: string | null;
    due_at: Date | null;
    expires_at: Date;
    id: number;
    kind: 'invitation' | 'password';
    made_at: Date;
    made_by: number | null;
    mail: 'waiting' | 'sent' | 'failed';
    organization_id: number;
    teammate_id: number;
    tries: number;
    used_at: Date | null;
  };
  template: {
    archived_at: Date | null;
    ask: import('@goodword/core/letter').AskRule | null;
    body: string;
    changed_by: number | null;
    channel: 'email' | 'text' | 'post' | 'call';
    chapter_id: number | null;
    created_at: Date;
    folder: string;
    id: number;
    is_team: number;
    letter: import('@goodword/core/letter').LetterDoc | null;
    list_id: number | null;
    locale: string | null;
    name: string;
    note: string;
    organization_id: number;
    owner_id: number | null;
    plainly: number;
    preheader: string;
    purpose: string | null;
    subject: string;
    updated_at: Date;
    version: number;
  };
  text_segment: {
    at: Date;
    gateway_id: string;
    is_delivered: any;
    provider_key: string;
  };
  words_version: {
    changed_at: Date;
    changed_by: number | null;
    id: number;
    of: 'message' | 'template';
    of_id: number;
    organization_id: number;
    version: number;
    words: import('@goodword/core/letter').KeptWords;
  };
}
