/* Made from the schemas beside it by `npm run contract`; changes belong there. */

export interface paths {
  '/health/live': {
    /**
     * The process runs
     * @description Needs no session.
     */
    get: operations['HealthController.live'];
  };
  '/health/ready': {
    /**
     * The process can do its work
     * @description Needs no session.
     */
    get: operations['HealthController.ready'];
  };
  '/metrics': {
    /**
     * Metrics for Prometheus
     * @description Needs no session.
     */
    get: operations['HealthController.metrics'];
  };
  '/api/session': {
    /**
     * Who is signed in, and where
     * @description Needs the role viewer.
     */
    get: operations['TeamController.view'];
    /**
     * Sign in
     * @description Needs no session.
     */
    post: operations['TeamController.signIn'];
    /**
     * Sign out
     * @description Needs the role viewer.
     */
    delete: operations['TeamController.signOut'];
  };
  '/api/session/teammates': {
    /**
     * Who works here
     * @description Needs the role viewer.
     */
    get: operations['TeamController.teammates'];
  };
  '/api/session/chapter': {
    /**
     * Work in another chapter
     * @description Needs the role viewer.
     */
    put: operations['TeamController.chooseChapter'];
  };
  '/api/me': {
    /**
     * What one says of oneself
     * @description Needs the role viewer.
     */
    get: operations['TeamController.profile'];
    /**
     * Change what one says of oneself
     * @description Needs the role viewer.
     */
    put: operations['TeamController.saveProfile'];
  };
  '/api/me/password': {
    /**
     * Change one’s password
     * @description Needs the role viewer.
     */
    put: operations['TeamController.changePassword'];
  };
  '/api/me/sessions': {
    /**
     * One’s own open sessions
     * @description Needs the role viewer.
     */
    get: operations['TeamController.sessions'];
    /**
     * End all of one’s sessions but this one
     * @description Needs the role viewer.
     */
    delete: operations['TeamController.endOthers'];
  };
  '/api/me/sessions/{id}': {
    /**
     * End one of one’s own sessions
     * @description Needs the role viewer.
     */
    delete: operations['TeamController.endSession'];
  };
  '/api/password/forgotten': {
    /**
     * Have a link sent to set a new password
     * @description Needs no session.
     */
    post: operations['TeamController.forgotten'];
  };
  '/api/password/{token}': {
    /**
     * What a link is for
     * @description Needs no session.
     */
    get: operations['TeamController.look'];
    /**
     * Set the password by a link, and sign in
     * @description Needs no session.
     */
    post: operations['TeamController.use'];
  };
  '/api/supporters': {
    /**
     * A page of supporters by name
     * @description Needs the role viewer.
     */
    get: operations['SupportersController.page'];
  };
  '/api/supporters/{id}': {
    /**
     * One supporter's record
     * @description Needs the role viewer.
     */
    get: operations['WholeRecordController.record'];
    /**
     * Erase a person: names, addresses and free words go, dates and states stay
     * @description Needs the role owner.
     */
    delete: operations['SupportersController.erase'];
    /**
     * Change a name
     * @description Needs the role organizer.
     */
    patch: operations['SupportersController.rename'];
  };
  '/api/supporters/{id}/fields/{fieldId}': {
    /**
     * Set or empty a field
     * @description Needs the role organizer.
     */
    put: operations['SupportersController.setField'];
  };
  '/api/supporters/{id}/tags/{tagId}': {
    /**
     * Put a tag on
     * @description Needs the role organizer.
     */
    put: operations['SupportersController.putTag'];
    /**
     * Take a tag off
     * @description Needs the role organizer.
     */
    delete: operations['SupportersController.dropTag'];
  };
  '/api/supporters/{id}/lists/{listId}': {
    /**
     * Put on a list
     * @description Needs the role organizer.
     */
    put: operations['SupportersController.putList'];
    /**
     * Take off a list
     * @description Needs the role organizer.
     */
    delete: operations['SupportersController.dropList'];
  };
  '/api/supporters/{id}/permission': {
    /**
     * Record what one person said
     * @description Needs the role organizer.
     */
    post: operations['SupportersController.addEntry'];
  };
  '/api/supporters/{id}/objection': {
    /**
     * Close every channel to marketing, as one act (GDPR art. 21)
     * @description Needs the role organizer.
     */
    post: operations['SupportersController.object'];
  };
  '/api/supporters/{id}/evidence': {
    /**
     * Keep a picture or PDF of the sheet signed (multipart: file)
     * @description Needs the role organizer.
     */
    post: operations['SupportersController.addEvidence'];
  };
  '/api/supporters/{id}/evidence/{evidenceId}': {
    /**
     * A piece of evidence
     * @description Needs the role viewer.
     */
    get: operations['SupportersController.evidence'];
  };
  '/api/supporters/{id}/place': {
    /**
     * Where they are
     * @description Needs the role organizer.
     */
    put: operations['SupportersController.setPlace'];
  };
  '/api/supporters/{id}/gifts': {
    /**
     * Enter a gift
     * @description Needs the role organizer.
     */
    post: operations['SupportersController.addGift'];
  };
  '/api/fields': {
    /**
     * Custom fields
     * @description Needs the role viewer.
     */
    get: operations['SupportersController.allFields'];
    /**
     * Make a custom field
     * @description Needs the role organizer.
     */
    post: operations['SupportersController.makeField'];
  };
  '/api/tags': {
    /**
     * Tags, with how many people have each
     * @description Needs the role viewer.
     */
    get: operations['SupportersController.tags'];
    /**
     * Make a tag
     * @description Needs the role organizer.
     */
    post: operations['TagsController.makeTag'];
  };
  '/api/lists': {
    /**
     * Lists, with how many people are on each
     * @description Needs the role viewer.
     */
    get: operations['SupportersController.lists'];
    /**
     * Make a list
     * @description Needs the role organizer.
     */
    post: operations['ListsController.makeList'];
  };
  '/api/supporters/{id}/contact-points': {
    /**
     * Add an address
     * @description Needs the role organizer.
     */
    post: operations['ContactPointsController.add'];
  };
  '/api/supporters/{id}/contact-points/{pointId}': {
    /**
     * Put another address in the place of one; what was agreed to at the old one stays there
     * @description Needs the role organizer.
     */
    put: operations['ContactPointsController.change'];
    /**
     * Take an address off
     * @description Needs the role organizer.
     */
    delete: operations['ContactPointsController.drop'];
  };
  '/api/supporters/{id}/contact-points/{pointId}/first': {
    /**
     * Write to this address before others of its kind
     * @description Needs the role organizer.
     */
    post: operations['ContactPointsController.putFirst'];
  };
  '/api/supporters/{id}/contact-points/{pointId}/release': {
    /**
     * Take an address off hold
     * @description Needs the role organizer.
     */
    post: operations['ContactPointsController.release'];
  };
  '/api/supporters/{id}/timeline': {
    /**
     * Everything that passed between us, or some kinds of it (kinds=gift,note)
     * @description Needs the role viewer.
     */
    get: operations['RecordController.timeline'];
  };
  '/api/supporters/{id}/history/{auditId}/undo': {
    /**
     * Take one edit of a record back
     * @description Needs the role organizer.
     */
    post: operations['RecordController.undo'];
  };
  '/api/supporters/{id}/notes': {
    /**
     * Write a note
     * @description Needs the role writer.
     */
    post: operations['RecordController.addNote'];
  };
  '/api/supporters/{id}/notes/{noteId}': {
    /**
     * Change a note of one’s own
     * @description Needs the role writer.
     */
    put: operations['RecordController.changeNote'];
    /**
     * Delete a note of one’s own
     * @description Needs the role writer.
     */
    delete: operations['RecordController.removeNote'];
  };
  '/api/supporters/{id}/household': {
    /**
     * Say that two people live together
     * @description Needs the role organizer.
     */
    put: operations['RecordController.join'];
    /**
     * Take a person out of the household
     * @description Needs the role organizer.
     */
    delete: operations['RecordController.leave'];
  };
  '/api/supporters/{id}/household/greeting': {
    /**
     * How the household is greeted; empty for the first names
     * @description Needs the role organizer.
     */
    put: operations['RecordController.greet'];
  };
  '/api/supporters/{id}/merging': {
    /**
     * Two records side by side
     * @description Needs the role organizer.
     */
    get: operations['RecordController.preview'];
    /**
     * Merge with…
     * @description Needs the role organizer.
     */
    post: operations['RecordController.merge'];
  };
  '/api/supporters/{id}/merging/{mergingId}': {
    /**
     * Part two records again
     * @description Needs the role organizer.
     */
    delete: operations['RecordController.unmerge'];
  };
  '/api/supporters/{id}/everything': {
    /**
     * Everything about one person, as JSON, CSV or vCard
     * @description Needs the role organizer.
     */
    get: operations['RecordController.everything'];
  };
  '/api/batches': {
    /**
     * Batches, newest first
     * @description Needs the role viewer.
     */
    get: operations['IntakeController.list'];
    /**
     * Take a file (multipart: file, and name and what if wanted)
     * @description Needs the role organizer.
     */
    post: operations['IntakeController.take'];
  };
  '/api/batches/prepared.{form}': {
    /**
     * A blank sheet to fill in
     * @description Needs the role viewer.
     */
    get: operations['IntakeController.prepared'];
  };
  '/api/batches/{id}': {
    /**
     * One batch: what was found, its plan, its counts
     * @description Needs the role viewer.
     */
    get: operations['IntakeController.show'];
    /**
     * Throw a batch away that never came in
     * @description Needs the role organizer.
     */
    delete: operations['IntakeController.discard'];
  };
  '/api/batches/{id}/preview': {
    /**
     * The first rows as they are read, with a guess and its confidence for each column
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.preview'];
  };
  '/api/batches/{id}/text': {
    /**
     * The file as text, as it is read
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.text'];
  };
  '/api/batches/{id}/reading': {
    /**
     * Read the file anew: encoding, separator, sheet, header line, what it is
     * @description Needs the role organizer.
     */
    put: operations['IntakeController.readAgain'];
  };
  '/api/batches/{id}/draft': {
    /**
     * Keep a half-done batch for the team
     * @description Needs the role organizer.
     */
    put: operations['IntakeController.keep'];
  };
  '/api/batches/{id}/plan': {
    /**
     * Fix what becomes of the file, and check it
     * @description Needs the role organizer.
     */
    put: operations['IntakeController.plan'];
  };
  '/api/batches/{id}/bring-in': {
    /**
     * Bring the people in, or go on
     * @description Needs the role organizer.
     */
    post: operations['IntakeController.bringIn'];
  };
  '/api/batches/{id}/stop': {
    /**
     * Stop after the rows under way
     * @description Needs the role organizer.
     */
    post: operations['IntakeController.stop'];
  };
  '/api/batches/{id}/seen': {
    /**
     * Somebody has looked at what came of it
     * @description Needs the role viewer.
     */
    post: operations['IntakeController.seen'];
  };
  '/api/batches/{id}/take-out': {
    /**
     * How many people would have to stay
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.takeOutNotice'];
    /**
     * Take the whole batch back out
     * @description Needs the role organizer.
     */
    post: operations['IntakeController.takeOut'];
  };
  '/api/batches/{id}/rows': {
    /**
     * Rows with what becomes of them and why
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.rows'];
  };
  '/api/batches/{id}/rows/{row}': {
    /**
     * A row beside the people it may be
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.sideBySide'];
  };
  '/api/batches/{id}/decisions': {
    /**
     * Settle rows that may be somebody who is here
     * @description Needs the role organizer.
     */
    post: operations['IntakeController.decide'];
  };
  '/api/batches/{id}/rows/{row}/decision': {
    /**
     * Put a settled row back to be looked at
     * @description Needs the role organizer.
     */
    delete: operations['IntakeController.undecide'];
  };
  '/api/batches/{id}/rows-to-mend.{form}': {
    /**
     * Rows with errors, with the reason in a column
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.toMend'];
  };
  '/api/batches/{id}/brought-in.{form}': {
    /**
     * Rows that came in, with our ids
     * @description Needs the role organizer.
     */
    get: operations['IntakeController.came'];
  };
  '/api/layouts': {
    /**
     * Remembered layouts, the last used first
     * @description Needs the role viewer.
     */
    get: operations['LayoutsController.all'];
  };
  '/api/layouts/{id}': {
    /**
     * Rename or change a layout
     * @description Needs the role organizer.
     */
    put: operations['LayoutsController.change'];
    /**
     * Forget a layout
     * @description Needs the role organizer.
     */
    delete: operations['LayoutsController.remove'];
  };
  '/api/house/files': {
    /**
     * Days that the files of batches are kept
     * @description Needs the role viewer.
     */
    get: operations['RetentionController.show'];
    /**
     * Change how long the files of batches are kept
     * @description Needs the role owner.
     */
    put: operations['RetentionController.change'];
  };
  '/api/campaigns': {
    /**
     * Campaigns with the counts of their rosters
     * @description Needs the role viewer.
     */
    get: operations['CampaignsController.all'];
    /**
     * Make a campaign
     * @description Needs the role organizer.
     */
    post: operations['CampaignsController.make'];
  };
  '/api/campaigns/{id}': {
    /**
     * One campaign
     * @description Needs the role viewer.
     */
    get: operations['CampaignsController.show'];
    /**
     * Change a campaign and its stages
     * @description Needs the role organizer.
     */
    put: operations['CampaignsController.change'];
    /**
     * Remove a campaign; its people stay
     * @description Needs the role organizer.
     */
    delete: operations['CampaignsController.remove'];
  };
  '/api/campaigns/{id}/roster': {
    /**
     * The roster, a page at a time
     * @description Needs the role viewer.
     */
    get: operations['CampaignsController.roster'];
    /**
     * Put a group on the roster, or move it
     * @description Needs the role organizer.
     */
    put: operations['CampaignsController.put'];
  };
  '/api/campaigns/{id}/roster/off': {
    /**
     * Take a group off the roster
     * @description Needs the role organizer.
     */
    post: operations['CampaignsController.takeOff'];
  };
  '/api/tags/{id}': {
    /**
     * Rename a tag
     * @description Needs the role organizer.
     */
    put: operations['TagsController.changeTag'];
    /**
     * Delete a tag
     * @description Needs the role organizer.
     */
    delete: operations['TagsController.removeTag'];
  };
  '/api/tags/{id}/use': {
    /**
     * How many people of each chapter have a tag
     * @description Needs the role viewer.
     */
    get: operations['TagsController.tagUse'];
  };
  '/api/tags/{id}/join': {
    /**
     * Make this tag one with another
     * @description Needs the role organizer.
     */
    post: operations['TagsController.joinTag'];
  };
  '/api/tags/{id}/deletion': {
    /**
     * What deleting a tag takes with it
     * @description Needs the role organizer.
     */
    get: operations['TagsController.tagDeletion'];
  };
  '/api/lists/order': {
    /**
     * The order of public lists on the preference page
     * @description Needs the role organizer.
     */
    put: operations['ListsController.orderLists'];
  };
  '/api/lists/folder': {
    /**
     * Put lists into a folder, or out of any
     * @description Needs the role organizer.
     */
    put: operations['ListsController.moveLists'];
  };
  '/api/lists/{id}': {
    /**
     * Change a list
     * @description Needs the role organizer.
     */
    put: operations['ListsController.changeList'];
    /**
     * Delete a list
     * @description Needs the role organizer.
     */
    delete: operations['ListsController.removeList'];
  };
  '/api/lists/{id}/deletion': {
    /**
     * What deleting a list takes with it
     * @description Needs the role organizer.
     */
    get: operations['ListsController.listDeletion'];
  };
  '/api/segments': {
    /**
     * Segments, each as a sentence
     * @description Needs the role viewer.
     */
    get: operations['SegmentsController.allSegments'];
    /**
     * Save a new segment
     * @description Needs the role organizer.
     */
    post: operations['SegmentsController.makeSegment'];
  };
  '/api/segments/{id}': {
    /**
     * Change a segment
     * @description Needs the role organizer.
     */
    put: operations['SegmentsController.changeSegment'];
    /**
     * Delete a segment
     * @description Needs the role organizer.
     */
    delete: operations['SegmentsController.removeSegment'];
  };
  '/api/segments/count': {
    /**
     * Count a rule, with how each line narrows
     * @description Needs the role viewer.
     */
    post: operations['SegmentsController.count'];
  };
  '/api/segments/people': {
    /**
     * The people that a rule takes in, in any order
     * @description Needs the role viewer.
     */
    post: operations['SegmentsController.people'];
  };
  '/api/segments/{id}/versions': {
    /**
     * A segment as it was saved, the newest first
     * @description Needs the role viewer.
     */
    get: operations['SegmentsController.versions'];
  };
  '/api/segments/{id}/sizes': {
    /**
     * How many a segment took in, day by day
     * @description Needs the role viewer.
     */
    get: operations['SegmentsController.sizes'];
  };
  '/api/segments/{id}/snapshot': {
    /**
     * Put everybody who is in it now on a new list
     * @description Needs the role organizer.
     */
    post: operations['SegmentsController.snapshot'];
  };
  '/api/segments/{id}/why/{supporterId}': {
    /**
     * Why one person is in or out
     * @description Needs the role viewer.
     */
    get: operations['SegmentsController.why'];
  };
  '/api/find': {
    /**
     * Find anybody and anything by a few letters
     * @description Needs the role viewer.
     */
    get: operations['FinderController.find'];
  };
  '/api/people-views': {
    /**
     * Tables of people that the team has named
     * @description Needs the role viewer.
     */
    get: operations['FinderController.views'];
    /**
     * Keep a table under a name, in the place of one of that name
     * @description Needs the role organizer.
     */
    put: operations['FinderController.keepView'];
  };
  '/api/people-views/{id}': {
    /**
     * Forget such a table
     * @description Needs the role organizer.
     */
    delete: operations['FinderController.forgetView'];
  };
  '/api/bulk': {
    /**
     * What was done to groups lately
     * @description Needs the role organizer.
     */
    get: operations['BulkController.recent'];
    /**
     * Do something to everybody in a group, in the background
     * @description Needs the role organizer.
     */
    post: operations['BulkController.begin'];
  };
  '/api/bulk/{id}': {
    /**
     * How far one of these is
     * @description Needs the role organizer.
     */
    get: operations['BulkController.show'];
  };
  '/api/bulk/{id}/stop': {
    /**
     * Stop it at its next step
     * @description Needs the role organizer.
     */
    post: operations['BulkController.stop'];
  };
  '/api/bulk/{id}/undo': {
    /**
     * Take back what it changed, where nothing changed since
     * @description Needs the role organizer.
     */
    post: operations['BulkController.undo'];
  };
  '/api/bulk/{id}/file': {
    /**
     * The file that an export made
     * @description Needs the role organizer.
     */
    get: operations['BulkController.file'];
  };
  '/api/calls': {
    /**
     * Lists of people to call
     * @description Needs the role organizer.
     */
    get: operations['CallsController.all'];
    /**
     * Make a list of people to call, in their order
     * @description Needs the role organizer.
     */
    post: operations['CallsController.make'];
  };
  '/api/calls/{id}': {
    /**
     * How far a list is called through
     * @description Needs the role organizer.
     */
    get: operations['CallsController.show'];
    /**
     * Delete a list; what was answered stays on the records
     * @description Needs the role organizer.
     */
    delete: operations['CallsController.remove'];
  };
  '/api/calls/{id}/people': {
    /**
     * Its people after a place; who=may for those who may be called, who=open for those still to be, who=again for those not reached
     * @description Needs the role organizer.
     */
    get: operations['CallsController.people'];
  };
  '/api/calls/{id}/people/{position}': {
    /**
     * What came of one call
     * @description Needs the role organizer.
     */
    put: operations['CallsController.answer'];
  };
  '/api/messages/{id}/calls': {
    /**
     * The lists that the calls of a step are made by, and how many are still to be called
     * @description Needs the role viewer.
     */
    get: operations['StepCallsController.view'];
  };
  '/api/messages/{id}/calls/over': {
    /**
     * Say that nobody more is called for the step
     * @description Needs the role organizer.
     */
    post: operations['StepCallsController.over'];
  };
  '/api/house/fields/{id}/choices': {
    /**
     * The choices of a field, with how many people have each
     * @description Needs the role organizer.
     */
    get: operations['FieldsController.choices'];
  };
  '/api/house/fields': {
    /**
     * Fields with how many people have a value
     * @description Needs the role organizer.
     */
    get: operations['FieldsController.all'];
  };
  '/api/house/fields/order': {
    /**
     * Put fields and their sections in order
     * @description Needs the role organizer.
     */
    put: operations['FieldsController.order'];
  };
  '/api/house/fields/{id}': {
    /**
     * Change what a field is called, where it stands and who sees it
     * @description Needs the role organizer.
     */
    put: operations['FieldsController.change'];
    /**
     * Delete a field with its values
     * @description Needs the role organizer.
     */
    delete: operations['FieldsController.remove'];
  };
  '/api/house/fields/{id}/conversion': {
    /**
     * What giving a field another type would do
     * @description Needs the role organizer.
     */
    get: operations['FieldsController.conversion'];
  };
  '/api/house/fields/{id}/type': {
    /**
     * Give a field another type, where every value converts
     * @description Needs the role organizer.
     */
    put: operations['FieldsController.setType'];
  };
  '/api/house/fields/{id}/choices/rename': {
    /**
     * Rename a choice, or make two into one
     * @description Needs the role organizer.
     */
    post: operations['FieldsController.renameChoice'];
  };
  '/api/house/fields/{id}/deletion': {
    /**
     * What deleting a field takes with it, and what uses it
     * @description Needs the role organizer.
     */
    get: operations['FieldsController.deletion'];
  };
  '/api/supporters/{id}/fields/{fieldId}/file': {
    /**
     * The file in a field
     * @description Needs the role viewer.
     */
    get: operations['FieldFilesController.read'];
    /**
     * Put a file into a field (multipart: file)
     * @description Needs the role organizer.
     */
    put: operations['FieldFilesController.put'];
  };
  '/api/regions': {
    /**
     * Regions of a country (ISO 3166-2)
     * @description Needs the role viewer.
     */
    get: operations['FieldFilesController.regions'];
  };
  '/api/messages': {
    /**
     * Messages, last changed first
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.list'];
    /**
     * Begin a message
     * @description Needs the role writer.
     */
    post: operations['MessagesController.make'];
  };
  '/api/messages/{id}': {
    /**
     * One message
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.show'];
    /**
     * Save the words of a draft
     * @description Needs the role writer.
     */
    put: operations['MessagesController.save'];
    /**
     * Delete a draft
     * @description Needs the role writer.
     */
    delete: operations['MessagesController.remove'];
  };
  '/api/messages/{id}/tag-triggers': {
    /**
     * Tags for whoever clicks a link in it, or replies to it
     * @description Needs the role organizer.
     */
    put: operations['MessagesController.tag'];
  };
  '/api/messages/{id}/copy': {
    /**
     * Use its words again, in a draft for a group yet to be chosen
     * @description Needs the role writer.
     */
    post: operations['MessagesController.copy'];
  };
  '/api/messages/{id}/faults': {
    /**
     * What is wrong with it
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.faults'];
  };
  '/api/messages/{id}/preview': {
    /**
     * As one supporter will get it
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.preview'];
  };
  '/api/merge-fields': {
    /**
     * Merge fields that can be written
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.mergeFields'];
  };
  '/api/images': {
    /**
     * The picture library
     * @description Needs the role viewer.
     */
    get: operations['MessagesController.pictures'];
    /**
     * Add a picture (multipart: file, alt)
     * @description Needs the role writer.
     */
    post: operations['MessagesController.addPicture'];
  };
  '/api/images/{id}': {
    /**
     * Change what a picture is called, what is on it and where it lies
     * @description Needs the role writer.
     */
    put: operations['MessagesController.changePicture'];
    /**
     * Delete a picture that nothing needs which has not left
     * @description Needs the role writer.
     */
    delete: operations['MessagesController.removePicture'];
  };
  '/media/{id}': {
    /**
     * A picture of the library
     * @description Needs no session.
     */
    get: operations['MessagesController.media'];
  };
  '/media/{id}/{width}': {
    /**
     * A picture of the library, not wider than this (in steps of 100)
     * @description Needs no session.
     */
    get: operations['MessagesController.sized'];
  };
  '/api/own-html': {
    /**
     * Clean a page of HTML that was made elsewhere, or a zip of one, for a letter (multipart: file)
     * @description Needs the role writer.
     */
    post: operations['OwnHtmlController.bringIn'];
  };
  '/api/ask-amounts': {
    /**
     * What a few people would be asked for by a rule
     * @description Needs the role viewer.
     */
    post: operations['TemplatesController.askAmounts'];
  };
  '/api/starters': {
    /**
     * Words to begin with that ship with the program
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.starters'];
  };
  '/api/templates': {
    /**
     * Templates by words in them, most used first
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.find'];
    /**
     * Make a template: blank, or from a starter, a message, another template or words
     * @description Needs the role writer.
     */
    post: operations['TemplatesController.make'];
  };
  '/api/templates/{id}': {
    /**
     * One template with its words
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.show'];
    /**
     * Save a template; messages that came from it keep their words
     * @description Needs the role writer.
     */
    put: operations['TemplatesController.save'];
    /**
     * Delete a template; messages that came from it keep their words
     * @description Needs the role writer.
     */
    delete: operations['TemplatesController.remove'];
  };
  '/api/templates/{id}/standing': {
    /**
     * Whether it is the team's (said by an organizer), and whether it is archived
     * @description Needs the role writer.
     */
    put: operations['TemplatesController.stand'];
  };
  '/api/templates/{id}/uses': {
    /**
     * Messages that came from it
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.uses'];
  };
  '/api/templates/{id}/versions': {
    /**
     * What it said before, the newest first
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.versions'];
  };
  '/api/messages/{id}/versions': {
    /**
     * What a message said before, the newest first
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.versionsOfMessage'];
  };
  '/api/templates/{id}/faults': {
    /**
     * Merge fields in it that are unknown
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.faults'];
  };
  '/api/templates/{id}/preview': {
    /**
     * As one supporter would get it from the caller
     * @description Needs the role viewer.
     */
    get: operations['TemplatesController.preview'];
  };
  '/api/messages/{id}/go': {
    /**
     * Hand a draft over for a go, take that back, agree to it, or send it back
     * @description Needs the role writer.
     */
    post: operations['TogetherController.say'];
  };
  '/api/messages/{id}/notes': {
    /**
     * Notes to places in the words, with their answers
     * @description Needs the role viewer.
     */
    get: operations['TogetherController.all'];
    /**
     * Write a note to a place in the words, or answer one
     * @description Needs the role writer.
     */
    post: operations['TogetherController.make'];
  };
  '/api/messages/{id}/notes/{noteId}': {
    /**
     * Settle a note, or open it again
     * @description Needs the role writer.
     */
    put: operations['TogetherController.settle'];
  };
  '/api/automations': {
    /**
     * Automatic messages
     * @description Needs the role viewer.
     */
    get: operations['AutomationsController.all'];
    /**
     * Begin an automatic message
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.make'];
  };
  '/api/automations/{id}': {
    /**
     * An automatic message, whole
     * @description Needs the role viewer.
     */
    get: operations['AutomationsController.show'];
    /**
     * Change what sets it going, and what ends it; while it is off
     * @description Needs the role organizer.
     */
    put: operations['AutomationsController.save'];
    /**
     * Delete one that was set going for nobody
     * @description Needs the role organizer.
     */
    delete: operations['AutomationsController.remove'];
  };
  '/api/automations/{id}/steps': {
    /**
     * Add a message to it, with a draft of its own
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.addStep'];
  };
  '/api/automations/{id}/steps/{stepId}': {
    /**
     * Change how long one of its messages waits
     * @description Needs the role organizer.
     */
    put: operations['AutomationsController.changeStep'];
    /**
     * Take one of its messages out; its words stay as a draft
     * @description Needs the role organizer.
     */
    delete: operations['AutomationsController.removeStep'];
  };
  '/api/automations/{id}/steps/{stepId}/anew': {
    /**
     * Write one of its messages anew that has gone to somebody
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.anew'];
  };
  '/api/automations/{id}/look': {
    /**
     * What keeps it from being switched on, and to how many it happened lately
     * @description Needs the role viewer.
     */
    get: operations['AutomationsController.look'];
  };
  '/api/automations/{id}/on': {
    /**
     * Switch it on, with as many of before as were seen
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.on'];
  };
  '/api/automations/{id}/off': {
    /**
     * Switch it off; whoever waits waits
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.off'];
  };
  '/api/automations/{id}/people': {
    /**
     * Those for whom it was set going, by how it stands with them
     * @description Needs the role viewer.
     */
    get: operations['AutomationsController.people'];
  };
  '/api/automations/{id}/hurry': {
    /**
     * Some who wait get it now
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.hurry'];
  };
  '/api/automations/{id}/take-out': {
    /**
     * Some who wait get nothing more of it
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.takeOut'];
  };
  '/api/automations/{id}/let-go': {
    /**
     * Those who wait for a look go, as many as were seen
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.letGo'];
  };
  '/api/automations/{id}/drop-held': {
    /**
     * None of those who wait for a look gets it, as many as were seen
     * @description Needs the role organizer.
     */
    post: operations['AutomationsController.dropHeld'];
  };
  '/api/feeds': {
    /**
     * Feeds
     * @description Needs the role viewer.
     */
    get: operations['FeedsController.all'];
    /**
     * Begin a feed
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.make'];
  };
  '/api/feeds/{id}': {
    /**
     * A feed with its last runs
     * @description Needs the role viewer.
     */
    get: operations['FeedsController.show'];
    /**
     * Change what it says; while it is off
     * @description Needs the role organizer.
     */
    put: operations['FeedsController.save'];
    /**
     * Delete a feed and its history; whom it brought in stays
     * @description Needs the role organizer.
     */
    delete: operations['FeedsController.remove'];
  };
  '/api/feeds/{id}/offer': {
    /**
     * What its source has to take
     * @description Needs the role organizer.
     */
    get: operations['FeedsController.offer'];
  };
  '/api/feeds/{id}/rows': {
    /**
     * The first rows over there, and what each column may become
     * @description Needs the role organizer.
     */
    get: operations['FeedsController.rows'];
  };
  '/api/feeds/{id}/notices': {
    /**
     * Noes that its source is still to be told of
     * @description Needs the role organizer.
     */
    get: operations['FeedsController.notices'];
  };
  '/api/feeds/{id}/on': {
    /**
     * Turn it on as it was seen
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.on'];
  };
  '/api/feeds/{id}/off': {
    /**
     * Turn it off; what came stays
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.off'];
  };
  '/api/feeds/{id}/runs': {
    /**
     * Run it now; a trial writes nothing
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.run'];
  };
  '/api/feeds/{id}/stop': {
    /**
     * Stop the run that is under way
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.stop'];
  };
  '/api/feeds/{id}/runs/{runId}/take-back': {
    /**
     * Take a run back out, and turn the feed off
     * @description Needs the role organizer.
     */
    post: operations['FeedsController.takeBack'];
  };
  '/api/feed-sources': {
    /**
     * Systems that feeds take from
     * @description Needs the role organizer.
     */
    get: operations['FeedSourcesController.all'];
    /**
     * Add a system that answers at an address
     * @description Needs the role owner.
     */
    post: operations['FeedSourcesController.make'];
  };
  '/api/feed-sources/{id}': {
    /**
     * Change where a system answers, or its token
     * @description Needs the role owner.
     */
    put: operations['FeedSourcesController.save'];
    /**
     * Delete a system that no feed takes from
     * @description Needs the role owner.
     */
    delete: operations['FeedSourcesController.remove'];
  };
  '/hooks/feeds/{key}': {
    /**
     * A source tells of a change (signed as Standard Webhooks says)
     * @description Needs no session.
     */
    post: operations['FeedHooksController.hook'];
  };
  '/api/messages/{id}/wordings': {
    /**
     * Begin another wording of a message, with the words of the first
     * @description Needs the role writer.
     */
    post: operations['ComparingController.add'];
  };
  '/api/messages/{id}/comparison': {
    /**
     * The wordings of a message, and what came of each
     * @description Needs the role viewer.
     */
    get: operations['ComparingController.show'];
    /**
     * Say how the wordings of a message are compared
     * @description Needs the role writer.
     */
    put: operations['ComparingController.save'];
  };
  '/api/messages/{id}/comparison/choose': {
    /**
     * Choose the wording that the rest gets, now
     * @description Needs the role organizer.
     */
    post: operations['ComparingController.choose'];
  };
  '/api/campaigns/{id}/plan': {
    /**
     * How a campaign is to go, with its steps
     * @description Needs the role viewer.
     */
    get: operations['PlanController.show'];
    /**
     * Change its first day, its goal, and for whom it is over when
     * @description Needs the role organizer.
     */
    put: operations['PlanController.save'];
  };
  '/api/campaigns/{id}/steps': {
    /**
     * Add a step, with a draft of its own
     * @description Needs the role organizer.
     */
    post: operations['PlanController.add'];
  };
  '/api/campaigns/{id}/steps/{stepId}': {
    /**
     * Change when a step leaves, and for whom of the roster
     * @description Needs the role organizer.
     */
    put: operations['PlanController.change'];
    /**
     * Take a step out; its words stay as a draft
     * @description Needs the role organizer.
     */
    delete: operations['PlanController.remove'];
  };
  '/api/campaigns/{id}/plan/expected': {
    /**
     * How many each step would come to now
     * @description Needs the role viewer.
     */
    get: operations['PlanController.expected'];
  };
  '/api/campaigns/{id}/plan/look': {
    /**
     * The last look at all steps that are not set going
     * @description Needs the role organizer.
     */
    post: operations['PlanController.look'];
  };
  '/api/campaigns/{id}/plan/go': {
    /**
     * Set the steps going that were looked at
     * @description Needs the role organizer.
     */
    post: operations['PlanController.go'];
  };
  '/api/campaigns/{id}/plan/path': {
    /**
     * How it reaches one person
     * @description Needs the role viewer.
     */
    get: operations['PlanController.pathOf'];
  };
  '/api/sender': {
    /**
     * As whom mail and texts go out, with what was found last
     * @description Needs the role organizer.
     */
    get: operations['SenderController.show'];
  };
  '/api/sender/check': {
    /**
     * Look for every record anew
     * @description Needs the role organizer.
     */
    post: operations['SenderController.check'];
  };
  '/api/sender/through': {
    /**
     * Send a mail to ourselves by way of the provider
     * @description Needs the role organizer.
     */
    post: operations['SenderController.through'];
  };
  '/api/sender/limits': {
    /**
     * How much mail the provider takes, and how a new domain is made known
     * @description Needs the role owner.
     */
    put: operations['SenderController.limits'];
  };
  '/api/sender/number': {
    /**
     * What kind of number texts come from, how it is registered, and its rate
     * @description Needs the role owner.
     */
    put: operations['SenderController.number'];
  };
  '/api/messages/{id}/readers': {
    /**
     * Whom the message can be read as: those who would get it first
     * @description Needs the role viewer.
     */
    get: operations['SendingController.readAs'];
  };
  '/api/messages/{id}/proofs': {
    /**
     * What was found, or how far it is
     * @description Needs the role viewer.
     */
    get: operations['SendingController.proofsOf'];
    /**
     * Look through everybody who would get it, for those it is worth reading it as
     * @description Needs the role writer.
     */
    post: operations['SendingController.beginProofs'];
  };
  '/api/messages/{id}/recipients': {
    /**
     * Choose who is in the group
     * @description Needs the role organizer.
     */
    put: operations['SendingController.saveRecipients'];
  };
  '/api/messages/{id}/second': {
    /**
     * Agree to what the last look says, so that another may send it
     * @description Needs the role organizer.
     */
    post: operations['SendingController.second'];
  };
  '/api/messages/{id}/last-look': {
    /**
     * Count the group down to those who will get it
     * @description Needs the role writer.
     */
    post: operations['SendingController.lastLook'];
  };
  '/api/messages/{id}/last-look/overlap': {
    /**
     * Who of those that it reaches also gets what is planned
     * @description Needs the role writer.
     */
    get: operations['SendingController.overlap'];
  };
  '/api/messages/{id}/last-look/ahead': {
    /**
     * What is to come for those that it reaches, until it has left
     * @description Needs the role writer.
     */
    get: operations['SendingController.aheadOf'];
  };
  '/api/messages/{id}/last-look/people': {
    /**
     * The people behind a number of the last look
     * @description Needs the role writer.
     */
    get: operations['SendingController.people'];
  };
  '/api/messages/{id}/test': {
    /**
     * Send it as a test: to oneself, or to those on a list who agreed to it
     * @description Needs the role writer.
     */
    post: operations['SendingController.test'];
  };
  '/api/messages/{id}/own-times': {
    /**
     * When a time comes to those of the last look, where they are
     * @description Needs the role organizer.
     */
    get: operations['SendingController.ownTimesOf'];
  };
  '/api/messages/{id}/send': {
    /**
     * Send now or at a time
     * @description Needs the role organizer.
     */
    post: operations['SendingController.send'];
  };
  '/api/messages/{id}/unschedule': {
    /**
     * Take it back from its schedule
     * @description Needs the role organizer.
     */
    post: operations['SendingController.unschedule'];
  };
  '/api/messages/{id}/pause': {
    /**
     * Pause the sending
     * @description Needs the role organizer.
     */
    post: operations['SendingController.pause'];
  };
  '/api/messages/{id}/resume': {
    /**
     * Go on sending
     * @description Needs the role organizer.
     */
    post: operations['SendingController.resume'];
  };
  '/api/messages/{id}/stop': {
    /**
     * Stop for good; what has left has left
     * @description Needs the role organizer.
     */
    post: operations['SendingController.stop'];
  };
  '/api/messages-to': {
    /**
     * Begin a message to a group: one by its id, or people who were chosen
     * @description Needs the role organizer.
     */
    post: operations['BeginController.begin'];
  };
  '/api/supporters/{id}/may-write': {
    /**
     * What a message to this person would meet now
     * @description Needs the role viewer.
     */
    get: operations['PersonalController.verdict'];
  };
  '/api/supporters/{id}/messages': {
    /**
     * Write to this person alone, now
     * @description Needs the role organizer.
     */
    post: operations['PersonalController.send'];
  };
  '/api/messages/{id}/letters': {
    /**
     * How far the letters are, their files, and whose has to be taken out
     * @description Needs the role viewer.
     */
    get: operations['LettersController.view'];
    /**
     * Lay the letters out anew, for those who may be written to now
     * @description Needs the role organizer.
     */
    post: operations['LettersController.make'];
  };
  '/api/messages/{id}/letters/{fileId}/file': {
    /**
     * A file of letters to print, or of their addresses
     * @description Needs the role organizer.
     */
    get: operations['LettersController.file'];
  };
  '/api/messages/{id}/letter-page': {
    /**
     * The letter of one person as it would be printed
     * @description Needs the role viewer.
     */
    get: operations['LettersController.page'];
  };
  '/api/messages/{id}/posted': {
    /**
     * Say that the letters have been posted, and when
     * @description Needs the role organizer.
     */
    post: operations['LettersController.posted'];
  };
  '/api/replies': {
    /**
     * What people wrote back, a line for each of them
     * @description Needs the role viewer.
     */
    get: operations['InboxController.page'];
  };
  '/api/replies/{id}': {
    /**
     * The thread that a reply belongs to
     * @description Needs the role viewer.
     */
    get: operations['InboxController.thread'];
  };
  '/api/replies/{id}/read': {
    /**
     * A thread has been read to this reply
     * @description Needs the role organizer.
     */
    post: operations['InboxController.read'];
  };
  '/api/replies/{id}/handled': {
    /**
     * A thread is done to this reply, or the reply is open again
     * @description Needs the role organizer.
     */
    post: operations['InboxController.handled'];
  };
  '/api/replies/{id}/aside': {
    /**
     * Put a thread aside until a time, or take it up again
     * @description Needs the role organizer.
     */
    post: operations['InboxController.aside'];
  };
  '/api/replies/{id}/assigned': {
    /**
     * Say whose a thread is to answer
     * @description Needs the role organizer.
     */
    post: operations['InboxController.assign'];
  };
  '/api/replies/{id}/no': {
    /**
     * Read a reply as opting out of its channel
     * @description Needs the role organizer.
     */
    post: operations['InboxController.no'];
  };
  '/api/replies/{id}/files/{fileId}': {
    /**
     * A file that came with a reply
     * @description Needs the role viewer.
     */
    get: operations['InboxController.file'];
  };
  '/api/messages/{id}/results': {
    /**
     * What came of a message
     * @description Needs the role viewer.
     */
    get: operations['ResultsController.of'];
  };
  '/api/messages/{id}/results/people': {
    /**
     * The people behind a number
     * @description Needs the role viewer.
     */
    get: operations['ResultsController.people'];
  };
  '/api/deliveries/{id}/settle': {
    /**
     * Settle an unsure delivery
     * @description Needs the role organizer.
     */
    post: operations['ResultsController.settle'];
  };
  '/leave/{token}': {
    /**
     * The page to leave by: shows a button, does nothing
     * @description Needs no session.
     */
    get: operations['UnsubscribeController.page'];
    /**
     * Leave (also the one-click POST of RFC 8058)
     * @description Needs no session.
     */
    post: operations['UnsubscribeController.leave'];
  };
  '/o/{token}.gif': {
    /**
     * The mark of an open
     * @description Needs no session.
     */
    get: operations['UnsubscribeController.opened'];
  };
  '/f/{token}': {
    /**
     * A tracked link
     * @description Needs no session.
     */
    get: operations['UnsubscribeController.clicked'];
  };
  '/api/forms': {
    /**
     * Sign-up forms with their counts
     * @description Needs the role viewer.
     */
    get: operations['FormsController.list'];
    /**
     * Make a form, for a public list or for news
     * @description Needs the role organizer.
     */
    post: operations['FormsController.make'];
  };
  '/api/forms/{id}': {
    /**
     * One form
     * @description Needs the role viewer.
     */
    get: operations['FormsController.show'];
    /**
     * Save a new version
     * @description Needs the role organizer.
     */
    put: operations['FormsController.save'];
  };
  '/api/forms/{id}/open': {
    /**
     * Open or close a form
     * @description Needs the role organizer.
     */
    put: operations['FormsController.open'];
  };
  '/join/form.js': {
    /**
     * The hosted form's own small script
     * @description Needs no session.
     */
    get: operations['JoinController.formScript'];
  };
  '/join/frame.js': {
    /**
     * The script that puts a form into another page
     * @description Needs no session.
     */
    get: operations['JoinController.frameScript'];
  };
  '/join/{slug}': {
    /**
     * A sign-up form as a page
     * @description Needs no session.
     */
    get: operations['JoinController.page'];
    /**
     * Join by a form
     * @description Needs no session.
     */
    post: operations['JoinController.join'];
  };
  '/join/{slug}/begun': {
    /**
     * Somebody has begun to fill a form in
     * @description Needs no session.
     */
    post: operations['JoinController.begun'];
  };
  '/join/{slug}/privacy': {
    /**
     * What becomes of what people type into a form
     * @description Needs no session.
     */
    get: operations['JoinController.privacy'];
  };
  '/join/{slug}/qr.svg': {
    /**
     * The address of a form as a QR code
     * @description Needs no session.
     */
    get: operations['JoinController.qrSvg'];
  };
  '/join/{slug}/qr.png': {
    /**
     * The same to print
     * @description Needs no session.
     */
    get: operations['JoinController.qrPng'];
  };
  '/confirm/{token}': {
    /**
     * The page to confirm by: shows a button, does nothing
     * @description Needs no session.
     */
    get: operations['JoinController.look'];
    /**
     * Confirm
     * @description Needs no session.
     */
    post: operations['JoinController.confirm'];
  };
  '/never-ask/{token}': {
    /**
     * The page to be asked no more by: shows a button
     * @description Needs no session.
     */
    get: operations['JoinController.neverAskPage'];
    /**
     * Never ask this mailbox again (also the one-click POST of RFC 8058)
     * @description Needs no session.
     */
    post: operations['JoinController.neverAsk'];
  };
  '/choices/{token}': {
    /**
     * What a supporter gets, and why
     * @description Needs no session.
     */
    get: operations['PreferencesController.page'];
    /**
     * Choose, pause, leave, correct
     * @description Needs no session.
     */
    post: operations['PreferencesController.act'];
  };
  '/choices/{token}/data.json': {
    /**
     * Everything opened about them
     * @description Needs no session.
     */
    get: operations['PreferencesController.data'];
  };
  '/api/supporters/{id}/choices-link': {
    /**
     * Sends one person a fresh link to their preference page; nobody else sees it
     * @description Needs the role organizer.
     */
    post: operations['PreferencesController.link'];
  };
  '/api/supporters/{id}/permission.json': {
    /**
     * One person's file of permission, also of somebody erased
     * @description Needs the role viewer.
     */
    get: operations['EvidenceController.json'];
  };
  '/api/supporters/{id}/permission.html': {
    /**
     * The same as a page
     * @description Needs the role viewer.
     */
    get: operations['EvidenceController.page'];
  };
  '/api/supporters/{id}/permission.pdf': {
    /**
     * The same as PDF
     * @description Needs the role viewer.
     */
    get: operations['EvidenceController.pdf'];
  };
  '/api/permission/files': {
    /**
     * Whose file an address leads to, also of people erased
     * @description Needs the role owner.
     */
    get: operations['EvidenceController.at'];
  };
  '/api/permission/revocations.csv': {
    /**
     * Every no: when it was received, read and acted on
     * @description Needs the role organizer.
     */
    get: operations['EvidenceController.log'];
  };
  '/hooks/text': {
    /**
     * What the text gateway reports (signed: x-signature, HMAC-SHA-256 of the body)
     * @description Needs no session.
     */
    post: operations['TextsController.hook'];
  };
  '/api/text-answers': {
    /**
     * What is answered to STOP, HELP, START and whoever joins by text
     * @description Needs the role viewer.
     */
    get: operations['TextAnswersController.show'];
    /**
     * Change those answers
     * @description Needs the role owner.
     */
    put: operations['TextAnswersController.save'];
  };
  '/api/today': {
    /**
     * What waits
     * @description Needs the role viewer.
     */
    get: operations['TodayController.view'];
  };
  '/api/today/week': {
    /**
     * What the last seven days brought, and what a week brings usually
     * @description Needs the role viewer.
     */
    get: operations['TodayController.week'];
  };
  '/api/today/done': {
    /**
     * What was done today
     * @description Needs the role viewer.
     */
    get: operations['TodayController.done'];
  };
  '/api/jobs': {
    /**
     * Work in the background, running and finished
     * @description Needs the role viewer.
     */
    get: operations['TodayController.work'];
  };
  '/api/tasks/{id}/settle': {
    /**
     * Settle what only a person can
     * @description Needs the role organizer.
     */
    post: operations['TodayController.settle'];
  };
  '/api/organization': {
    /**
     * What the organization says of itself, with its chapters
     * @description Needs the role viewer.
     */
    get: operations['SetupController.organization'];
    /**
     * Change what the organization says of itself
     * @description Needs the role owner.
     */
    put: operations['SetupController.save'];
  };
  '/api/organization/style': {
    /**
     * How the letters of the house look
     * @description Needs the role viewer.
     */
    get: operations['SetupController.style'];
    /**
     * Change how letters look
     * @description Needs the role owner.
     */
    put: operations['SetupController.saveStyle'];
  };
  '/api/organization/logo': {
    /**
     * Change the logo (multipart: file)
     * @description Needs the role owner.
     */
    put: operations['SetupController.setLogo'];
    /**
     * Take the logo away
     * @description Needs the role owner.
     */
    delete: operations['SetupController.dropLogo'];
  };
  '/api/chapters': {
    /**
     * Open a chapter
     * @description Needs the role owner.
     */
    post: operations['SetupController.addChapter'];
  };
  '/api/chapters/{id}': {
    /**
     * Change a chapter
     * @description Needs the role owner.
     */
    put: operations['SetupController.changeChapter'];
  };
  '/api/team': {
    /**
     * The team, with who was invited and who is gone
     * @description Needs the role owner.
     */
    get: operations['SetupController.all'];
    /**
     * Invite a teammate by mail
     * @description Needs the role owner.
     */
    post: operations['SetupController.invite'];
  };
  '/api/team/{id}/invitation': {
    /**
     * Send the invitation again
     * @description Needs the role owner.
     */
    post: operations['SetupController.inviteAgain'];
  };
  '/api/team/{id}': {
    /**
     * Change a teammate’s role and chapter
     * @description Needs the role owner.
     */
    put: operations['SetupController.change'];
  };
  '/api/team/{id}/waiting': {
    /**
     * What waits for a teammate
     * @description Needs the role owner.
     */
    get: operations['SetupController.waiting'];
  };
  '/api/team/{id}/take-out': {
    /**
     * Take a teammate out, handing on what waits for them
     * @description Needs the role owner.
     */
    post: operations['SetupController.takeOut'];
  };
  '/api/team/{id}/sessions': {
    /**
     * End all sessions of a teammate
     * @description Needs the role owner.
     */
    delete: operations['SetupController.endSessions'];
  };
  '/api/beginning': {
    /**
     * Whether nobody is here yet
     * @description Needs no session.
     */
    get: operations['SetupController.isOpen'];
    /**
     * Begin, with the one-time word
     * @description Needs no session.
     */
    post: operations['SetupController.begin'];
  };
  '/api/house-rules': {
    /**
     * The rules of the house, and every change of them
     * @description Needs the role viewer.
     */
    get: operations['PermissionController.rules'];
    /**
     * Change the rules of the house
     * @description Needs the role owner.
     */
    put: operations['PermissionController.save'];
  };
  '/api/house-rules/weigh': {
    /**
     * Whom a change of rules opens and closes, without making it
     * @description Needs the role owner.
     */
    post: operations['PermissionController.weigh'];
  };
  '/api/house-rules/waiting': {
    /**
     * Agree to a change of rules that another owner asked for, or turn it down
     * @description Needs the role owner.
     */
    post: operations['PermissionController.settle'];
  };
  '/api/do-not-contact': {
    /**
     * What is never written to
     * @description Needs the role organizer.
     */
    get: operations['PermissionController.list'];
    /**
     * Add addresses, domains, numbers and ranges, one a line
     * @description Needs the role organizer.
     */
    post: operations['PermissionController.add'];
  };
  '/api/do-not-contact/file': {
    /**
     * Add a file of them, one a line (multipart: file)
     * @description Needs the role organizer.
     */
    post: operations['PermissionController.addFile'];
  };
  '/api/do-not-contact/{id}': {
    /**
     * Take an entry off
     * @description Needs the role owner.
     */
    delete: operations['PermissionController.remove'];
  };
  '/api/house-rules.json': {
    /**
     * The rules of the house as a file
     * @description Needs the role viewer.
     */
    get: operations['PermissionController.file'];
  };
}
export type webhooks = Record<string, never>;
export interface components {
  schemas: {
    Colleague: {
      id: number;
      name: string;
      email: string;
    };
    ParseOptions: import('../intake').ParseOptions;
    ColumnChoice: import('../intake').ColumnChoice;
    Mend: import('../intake').Mend;
    Scope: import('../permission').Scope;
    IntakePlan: import('../intake').IntakePlan;
    Explanation: import('../words').Explanation;
    FieldValue: import('../fields').FieldValue;
    Workbook: import('../intake').Workbook;
    FileFindings: import('../intake').FileFindings;
    Guess: import('../intake').Guess;
    HourSpan: import('../permission').HourSpan;
    Hours: import('../permission').Hours;
    MergeName: import('../merge').MergeName;
    Region: import('../fields').Region;
    AutomationLook: {
      /** @description What keeps it from being switched on. */
      lacks: string[];
      /**
       * Format: double
       * @description To how many it happened since the day that was asked for.
       */
      people: number;
      /**
       * Format: double
       * @description To how many it happened in the last thirty days.
       */
      month: number;
    };
    Wait: import('../automations').Wait;
    AutomationStep: {
      messageId: number;
      /**
       * Format: double
       * @description Of its time.
       */
      version: number;
      name: string;
      channel: 'email' | 'text' | 'call' | 'post';
      state:
        | 'draft'
        | 'scheduled'
        | 'preparing'
        | 'posting'
        | 'calling'
        | 'standing'
        | 'sending'
        | 'paused'
        | 'stopped'
        | 'done';
      wait: components['schemas']['Wait'];
      /** @description What keeps it from leaving; empty where it could. */
      lacks: string[];
      /**
       * Format: double
       * @description To how many it has gone.
       */
      went: number;
    };
    AutomationView: {
      id: number;
      name: string;
      on: boolean;
      /** @description When it leaves, as a part of a sentence that begins with “When”. */
      words: string;
      /** @description The names of its messages in their order. */
      messages: string[];
      /** @description People who wait, who wait for a look, who had all of it, and who get no more. */
      counts: {
        waiting: number;
        held: number;
        done: number;
        ended: number;
      };
    };
    Cause: import('../automations').Cause;
    Rule: import('../segment').Rule;
    AutomationWhole: {
      id: number;
      version: number;
      name: string;
      on: boolean;
      onSince: string | null;
      cause: components['schemas']['Cause'];
      words: string;
      /** @description Each time it happens, and not once for each person. */
      again: boolean;
      /** @description What ends it for somebody. */
      stops: ('gave' | 'replied' | 'left')[];
      unless: components['schemas']['Rule'] | null;
      unlessWords: string;
      steps: components['schemas']['AutomationStep'][];
      /** @description People who wait, who wait for a look, who had all of it, and who get no more. */
      counts: {
        waiting: number;
        held: number;
        done: number;
        ended: number;
      };
    };
    VisitRow: {
      id: number;
      supporterId: number;
      name: string;
      /** @description When it happened. */
      causedAt: string;
      /** @description When the next message leaves. */
      dueAt: string | null;
      /** @description What became of the last message for them; null where there was none. */
      came: string | null;
      /** @description Which message that is, or was to be. */
      next: string | null;
      /**
       * @description Why they get no more of it.
       * @enum {string|null}
       */
      why:
        | 'taken-off'
        | 'taken-out'
        | 'cause-gone'
        | 'left'
        | 'gave'
        | 'replied'
        | 'stage'
        | 'elsewhere'
        | 'excepted'
        | null;
    };
    BulkView: {
      id: number;
      /** @description What it does, as a sentence: "Put the tag plank menders on 4,793 people". */
      words: string;
      state: 'waiting' | 'running' | 'done' | 'stopped' | 'undoing' | 'undone' | 'failed';
      people: number;
      /**
       * Format: double
       * @description How many it has come to so far.
       */
      done: number;
      /**
       * Format: double
       * @description How many of them were changed; the others were so already.
       */
      changed: number;
      by: string;
      madeAt: string;
      endedAt: string | null;
      canUndo: boolean;
      /** @description A download waits. */
      file: string | null;
      problem: string | null;
      /** @description What there is to say of those who were left out: "3 people are not on it: no street on file (3)." */
      told: string;
    };
    FinderHit: {
      kind: 'segment' | 'list' | 'tag' | 'campaign' | 'message' | 'supporter';
      id: number;
      name: string;
      note: string;
    };
    PeopleView: {
      id: number;
      version: number;
      name: string;
      tree: components['schemas']['Rule'];
      madeBy: string;
      fields: number[];
      by:
        | number
        | ('name' | 'created' | 'updated' | 'country' | 'region' | 'postcode' | 'externalId' | 'household');
      descending: boolean;
    };
    CallListView: {
      id: number;
      name: string;
      campaign: {
        id: number;
        name: string;
      } | null;
      script: string;
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      people: number;
      /**
       * Format: double
       * @description Of whom it is known what came of a call, `again` included.
       */
      called: number;
      /**
       * Format: double
       * @description Who was not reached or had no time, and may be called once more.
       */
      again: number;
      /**
       * Format: double
       * @description Who may not be called for this, and is passed over.
       */
      suppressed: number;
      outcomes: {
        outcome: string;
        people: number;
      }[];
      /** @description What can be answered, in the order of the keys 1 to 9. */
      options: string[];
      madeBy: string;
      madeAt: string;
      /** @description The step of a campaign whose calls these are, and how it stands. */
      step: {
        messageId: number;
        state:
          | 'draft'
          | 'scheduled'
          | 'preparing'
          | 'posting'
          | 'calling'
          | 'standing'
          | 'sending'
          | 'paused'
          | 'stopped'
          | 'done';
      } | null;
    };
    CallHours: {
      words: string;
      from: string | null;
    };
    CallRow: {
      /**
       * Format: double
       * @description The number on the printed sheet.
       */
      position: number;
      supporterId: number;
      name: string;
      /** @description The number that permission chose; left out while it is no decent hour there. */
      phone: string | null;
      hours: components['schemas']['CallHours'];
      /** @description Why this person is not to be called; null where they may be. */
      suppressed: string | null;
      stage: string | null;
      outcome: string | null;
      note: string;
      lastGift: {
        amount: number;
        on: string;
      } | null;
      /** @description The script with this person's values. */
      script: string;
    };
    StepCalls: {
      lists: {
        id: number;
        name: string;
        people: number;
        called: number;
        again: number;
        suppressed: number;
      }[];
      /**
       * Format: double
       * @description How many are still to be called, or to be called once more.
       */
      waiting: number;
    };
    ComparisonView: {
      /**
       * Format: double
       * @description The message whose wordings they are: its own is the first.
       */
      messageId: number;
      version: number;
      /**
       * Format: double
       * @description Of a hundred people so many get one of them first.
       */
      share: number;
      measure: 'clicked' | 'gave' | 'replied' | 'opened';
      /**
       * Format: double
       * @description So many after the last of those has left it is decided.
       */
      hours: number;
      /** @description The first is the message itself; none at all where there is no other. */
      wordings: {
        id: number;
        name: string;
        subject: string;
        /** @description Another name than that of the first, where it has one. */
        sender: string | null;
        state:
          | 'draft'
          | 'scheduled'
          | 'preparing'
          | 'posting'
          | 'calling'
          | 'standing'
          | 'sending'
          | 'paused'
          | 'stopped'
          | 'done';
        /**
         * Format: double
         * @description To how many of those who were drawn it came.
         */
        came: number;
        /**
         * Format: double
         * @description How many of them did what counts.
         */
        did: number;
        /**
         * Format: double
         * @description To how many it has gone in all, the rest among them.
         */
        gone: number;
        /** @description How much more than of the first, with the range that it is in with 95 % confidence; 0 to 1. */
        beside: {
          more: number;
          low: number;
          high: number;
        } | null;
      }[];
      /** @description Which it would be now, and whether a difference is seen. */
      better: {
        id: number;
        differs: boolean;
      };
      /**
       * Format: double
       * @description How many wait for the better one.
       */
      rest: number;
      /**
       * Format: double
       * @description How many of those who were drawn have not left yet.
       */
      leaving: number;
      /** @description When it is decided, by now; null before it can be said, and after. */
      decidesAt: string | null;
      decided: {
        id: number;
        at: string;
        /** @description The teammate who chose it; null where it was decided by what people did. */
        by: string | null;
      } | null;
    };
    ThreadLine: {
      /**
       * Format: double
       * @description Their newest reply, by which the thread is named.
       */
      replyId: number;
      /**
       * Format: double
       * @description Null where the address is nobody’s.
       */
      supporterId: number | null;
      name: string;
      channel: 'email' | 'text';
      /** @description The beginning of the newest. */
      words: string;
      at: string;
      /**
       * Format: double
       * @description So many of theirs are open.
       */
      waiting: number;
      /** @description Nobody has read the newest yet. */
      unread: boolean;
      assignedTo: {
        id: number;
        name: string;
      } | null;
      asideUntil: string | null;
      /** @description The message that they answer. */
      message: string | null;
    };
    ThreadItem: {
      kind: 'in' | 'out' | 'note';
      id: number;
      at: string;
      channel: 'email' | 'text' | null;
      /** @description Who of the team; of theirs the address that it says itself. */
      by: string;
      subject: string;
      words: string;
      /** @description Of theirs, the message that it answers. */
      message: {
        id: number;
        name: string;
      } | null;
      /** @description Of theirs: `none` for words to us, `machine` for what a machine answered, else what it did. */
      keyword: string;
      /** @description Of ours, how its delivery stands; null before it has one. */
      state: string | null;
      files: {
        id: number;
        name: string;
        bytes: number;
        /**
         * @description Why it was not kept.
         * @enum {string|null}
         */
        refused: 'kind' | 'many' | 'empty' | null;
      }[];
    };
    ThreadView: {
      replyId: number;
      supporterId: number | null;
      name: string;
      /** @description Where their newest came from, as it is on file: an answer goes there. */
      from: string;
      channel: 'email' | 'text';
      subject: string;
      message: string | null;
      /**
       * Format: double
       * @description So many of theirs are not done.
       */
      open: number;
      assignedTo: {
        id: number;
        name: string;
      } | null;
      asideUntil: string | null;
      /** @description They seem to ask to stop, and what they wrote on is on hold until somebody says what was meant. */
      question: {
        taskId: number;
        words: string;
      } | null;
      /**
       * Format: double
       * @description Our newest message to them alone: an answer names it.
       */
      after: number | null;
      /** @description Who may answer. */
      mates: {
        id: number;
        name: string;
      }[];
      items: components['schemas']['ThreadItem'][];
    };
    ThreadsView: {
      threads: components['schemas']['ThreadLine'][];
      counts: {
        open: number;
        mine: number;
        aside: number;
        unread: number;
      };
    };
    StepExpected: {
      messageId: number;
      group: number;
      reached: number;
      suppressed: {
        reason:
          | 'fell-out'
          | 'no-address'
          | 'do-not-contact'
          | 'said-no'
          | 'on-hold'
          | 'asked'
          | 'no-permission'
          | 'paused'
          | 'had-enough'
          | 'shared-address';
        people: number;
      }[];
    };
    CampaignExpected: {
      steps: components['schemas']['StepExpected'][];
      /** @description How many people get none of these, one, two and so on. */
      gets: number[];
    };
    CampaignGoal: {
      kind: 'people' | 'gifts' | 'money';
      /**
       * Format: double
       * @description People, gifts, or minor units of money.
       */
      amount: number;
      /** @description Until which day. */
      by: string | null;
    };
    MessageFault: {
      where: 'text' | 'message' | 'subject' | 'preheader' | 'letter';
      message: string;
      suggestion: string | null;
      /** @description The words at fault, as typed. */
      excerpt: string | null;
    };
    LastLook: {
      group: number;
      suppressed: {
        reason:
          | 'fell-out'
          | 'no-address'
          | 'do-not-contact'
          | 'said-no'
          | 'on-hold'
          | 'asked'
          | 'no-permission'
          | 'paused'
          | 'had-enough'
          | 'shared-address';
        people: number;
      }[];
      reached: number;
      parts: number | null;
      /** @description Of a text: how many get how many parts, which fields make it longer, and what it costs. */
      texts: {
        byParts: {
          parts: number;
          people: number;
        }[];
        costly: {
          name: string;
          people: number;
        }[];
        /**
         * Format: double
         * @description Parts saved where values are written plainly.
         */
        saved: number;
        /**
         * Format: double
         * @description In units of the currency; null where no price is set.
         */
        cost: number | null;
      } | null;
      holes: {
        name: string;
        people: number;
      }[];
      faults: components['schemas']['MessageFault'][];
      /** @description Worth a second look; nothing is held back for it. */
      doubts: string[];
      inOrder: string[];
      /** @description Words of a service message that ask: it needs a second reader. */
      asks: string[];
      /** @description Where somebody else has to agree: why, above how many, and what was agreed to. */
      second: {
        why: 'asks' | 'many';
        above: number;
        /** @description Who agreed last; null where nobody did. */
        by: string | null;
        /** @description That was whoever asks: another may send it. */
        own: boolean;
        /**
         * Format: double
         * @description To so many it was agreed.
         */
        reached: number;
        /** @description Whoever asks may send it as it is now. */
        holds: boolean;
      } | null;
      hours: components['schemas']['Hours'] | null;
      /** @description Says who, what and by which rules: sending names it, and any other is refused. */
      digest: string;
    };
    CampaignLook: {
      steps: {
        messageId: number;
        look: components['schemas']['LastLook'];
      }[];
      /** @description How many people get none of all that have not left, one, two and so on. */
      gets: number[];
    };
    StepView: {
      messageId: number;
      /**
       * Format: double
       * @description Of its time and of whom it is for.
       */
      version: number;
      name: string;
      channel: 'email' | 'text' | 'call' | 'post';
      state:
        | 'draft'
        | 'scheduled'
        | 'preparing'
        | 'posting'
        | 'calling'
        | 'standing'
        | 'sending'
        | 'paused'
        | 'stopped'
        | 'done';
      /**
       * Format: double
       * @description Days after the first one of the campaign.
       */
      day: number;
      /**
       * Format: double
       * @description After midnight.
       */
      minutes: number;
      /** @description By the clock of whoever gets it. */
      ownTime: boolean;
      /** @description When it leaves by the house's clock; null without a first day. */
      at: string | null;
      /** @description Whom of the roster it is for; null for everybody. */
      rule: components['schemas']['Rule'] | null;
      /** @description That in words; empty for everybody. */
      words: string;
      /** @description Its words are in order and were tested. */
      isReady: boolean;
      /**
       * Format: double
       * @description To how many it has gone.
       */
      went: number;
    };
    CampaignPlan: {
      version: number;
      firstDay: string | null;
      goal: components['schemas']['CampaignGoal'] | null;
      /**
       * Format: double
       * @description Of the goal, by gifts since the first day or with the code.
       */
      reached: number;
      endsFor: ('gave' | 'replied' | 'left')[];
      /** @description Stages at which somebody is asked no further. */
      endsAt: string[];
      /**
       * Format: double
       * @description The segment whose people come onto the roster by themselves.
       */
      joinsFrom: number | null;
      steps: components['schemas']['StepView'][];
    };
    CampaignView: {
      id: number;
      version: number;
      name: string;
      kind: 'appeal' | 'thank-you' | 'update';
      appealCode: string | null;
      stages: string[];
      isOpen: boolean;
      madeAt: string;
      madeBy: string;
      people: number;
      /** @description People at each stage. */
      counts: {
        [key: string]: number;
      };
    };
    PathStep: {
      messageId: number;
      at: string | null;
      /** @description What became of it, where it has gone to them or was held back. */
      came: string | null;
      verdict:
        | 'send'
        | 'not-meant'
        | 'fell-out'
        | 'no-address'
        | 'do-not-contact'
        | 'said-no'
        | 'on-hold'
        | 'asked'
        | 'no-permission'
        | 'paused'
        | 'had-enough'
        | 'shared-address'
        | null;
      /**
       * @description Why they are out of the campaign.
       * @enum {string|null}
       */
      fall:
        | 'taken-off'
        | 'taken-out'
        | 'cause-gone'
        | 'left'
        | 'gave'
        | 'replied'
        | 'stage'
        | 'elsewhere'
        | 'excepted'
        | null;
      words: string;
    };
    RosterRow: {
      supporterId: number;
      firstName: string;
      lastName: string;
      stage: string;
      putAt: string;
      by: string;
    };
    AddressHolder: {
      id: number;
      /** @description Empty for somebody erased. */
      name: string;
      erasedAt: string | null;
      /** @description Whether it is an address of theirs today. */
      current: boolean;
    };
    FeedNotice: {
      id: number;
      supporterId: number;
      name: string;
      record: string;
      /** @description What it is a no to. */
      words: string;
      at: string;
      attempts: number;
      problem: string | null;
    };
    FeedOffer: {
      types: {
        key: string;
        name: string;
        filters: {
          key: string;
          name: string;
        }[];
      }[];
      /** @description It can tell of changes as they happen. */
      tells: boolean;
      /** @description It can be told of a no. */
      takes: boolean;
    };
    FeedRows: {
      header: string[];
      rows: string[][];
      guesses: components['schemas']['Guess'][];
      /** @description The column that most likely tells one record from another. */
      key: string | null;
    };
    FeedRunView: {
      id: number;
      cause: 'clock' | 'hand' | 'hook' | 'trial';
      state:
        | 'reading'
        | 'checking'
        | 'bringing'
        | 'done'
        | 'nothing'
        | 'tried'
        | 'held'
        | 'failed'
        | 'stopped'
        | 'taken-out';
      /**
       * Format: double
       * @description The batch that it is; null where nothing came.
       */
      batchId: number | null;
      /**
       * Format: double
       * @description The batch of those that wait for a look.
       */
      looksBatchId: number | null;
      beganAt: string;
      endedAt: string | null;
      beganBy: string | null;
      fresh: number;
      changed: number;
      same: number;
      gone: number;
      /**
       * Format: double
       * @description Rows that wait for a look.
       */
      looks: number;
      notTaken: number;
      problem: string | null;
    };
    FeedSourceView: {
      id: number;
      version: number;
      name: string;
      kind: 'desk' | 'address';
      url: string;
      hasToken: boolean;
      /**
       * Format: double
       * @description How many feeds take from it.
       */
      feeds: number;
    };
    FeedView: {
      id: number;
      name: string;
      source: string;
      on: boolean;
      /** @description What it takes and when, as a sentence. */
      words: string;
      /**
       * Format: double
       * @description How much is missing before it can be turned on.
       */
      lacks: number;
      /** @description Why it stopped by itself; null where it did not. */
      problem: string | null;
      nextRunAt: string | null;
      last: components['schemas']['FeedRunView'] | null;
    };
    Every: import('../feeds').Every;
    FeedPlan: import('../feeds').FeedPlan;
    FeedWhole: {
      id: number;
      version: number;
      name: string;
      source: components['schemas']['FeedSourceView'];
      plan: components['schemas']['FeedPlan'];
      on: boolean;
      onSince: string | null;
      nextRunAt: string | null;
      problem: string | null;
      lacks: {
        sentence: string;
        words: string;
      }[];
      /**
       * Format: double
       * @description How many records over there it knows.
       */
      records: number;
      /** @description Its last runs, newest first. */
      runs: components['schemas']['FeedRunView'][];
      /** @description Noes that its source is told of, and what keeps the first that waits. */
      telling: {
        told: number;
        waiting: number;
        problem: string | null;
      };
    };
    FormCounts: {
      seen: number;
      begun: number;
      joined: number;
      confirmed: number;
    };
    FormDefinition: import('../forms').FormDefinition;
    FormView: {
      id: number;
      name: string;
      slug: string;
      open: boolean;
      version: number;
      definition: components['schemas']['FormDefinition'];
      counts: components['schemas']['FormCounts'];
      /**
       * Format: double
       * @description People Asked who have not confirmed yet.
       */
      waiting: number;
      url: string;
      /** @description What keeps it from being opened. */
      faults: {
        field: string;
        message: string;
      }[];
    };
    ListView: {
      id: number;
      version: number;
      name: string;
      isPublic: boolean;
      description: string;
      /** @description "Why we write to you", for supporters. */
      why: string;
      onPreferences: boolean;
      byForm: boolean;
      /** @description Where it lies among the lists; empty for none. */
      folder: string;
      /**
       * Format: double
       * @description How many are on it; left out where names alone were asked for.
       */
      people?: number;
    };
    TagView: {
      id: number;
      name: string;
      /**
       * Format: double
       * @description How many have it; left out where names alone were asked for.
       */
      people?: number;
      /** @description The chapter that made it for itself; null for a tag of the whole organization. */
      chapter: string | null;
      /** @description Chapters see it and put it on. */
      handedDown: boolean;
    };
    BatchPreview: {
      found: components['schemas']['FileFindings'];
      guesses: components['schemas']['Guess'][];
      what: 'people' | 'refusals' | 'here' | 'gifts';
      rows: string[][];
      mends: components['schemas']['Mend'][];
      columns: components['schemas']['ColumnChoice'][];
    };
    LikelyDouble: {
      id: number;
      score: number;
      reasons: string[];
    };
    RowWrites: {
      emails: string[];
      phones: string[];
      post: string | null;
      ownId: string | null;
      fields: {
        name: string;
        value: string;
      }[];
      tags: string[];
      lists: string[];
      /** @description On the roster of the campaign. */
      stage: string | null;
      /** @description The chapter that somebody new joins; null of who is here already. */
      chapter: string | null;
      /** @description Entries of the ledger; `at` is the address, null for the person. `on` is a day. */
      permission: {
        channel: 'email' | 'text' | 'call' | 'post';
        scope: string;
        state: 'yes' | 'no' | 'asked';
        at: string | null;
        on: string;
        words: string;
      }[];
      /** @description Hundredths of the currency; the day in days since 1970-01-01. */
      gift: {
        minor: number;
        currency: string;
        day: number;
        ownId: string | null;
        appeal: string | null;
      } | null;
    };
    BatchRowView: {
      row: number;
      verdict:
        | 'new'
        | 'shares'
        | 'update'
        | 'same'
        | 'here'
        | 'no'
        | 'hold'
        | 'gift'
        | 'doubled'
        | 'look'
        | 'skipped'
        | 'aside'
        | 'failed';
      firstName: string;
      lastName: string;
      email: string | null;
      mobile: string | null;
      reason: string;
      hint: string;
      why:
        | 'two-people'
        | 'other-name-same-id'
        | 'same-name'
        | 'short-form'
        | 'initial'
        | 'transposed'
        | 'alike'
        | 'loose-email'
        | null;
      candidates: components['schemas']['LikelyDouble'][];
      supporterId: number | null;
      /** @description Whom it meets, and by what: somebody who is here or an earlier row of the file. Null also where they are of another chapter than the one in which the reader works. */
      meets: {
        supporterId: number | null;
        row: number | null;
        name: string;
        by: string;
      } | null;
      /** @description What changes, for somebody who is here: from what to what, and addresses that are added. */
      changes: {
        what: string;
        from: string;
        to: string;
      }[];
      writes: components['schemas']['RowWrites'] | null;
    };
    DraftPlan: import('../intake').DraftPlan;
    IntakeDraft: {
      step: string;
      name: string;
      plan: components['schemas']['DraftPlan'];
    };
    BatchWill: {
      entries: {
        text?: {
          yes: number;
          no: number;
          asked: number;
        };
        email?: {
          yes: number;
          no: number;
          asked: number;
        };
        call?: {
          yes: number;
          no: number;
          asked: number;
        };
        post?: {
          yes: number;
          no: number;
          asked: number;
        };
      };
      /**
       * Format: double
       * @description Addresses that said no before, are on do-not-contact, or are held.
       */
      saidNo: number;
      doNotContact: number;
      onHold: number;
      alreadyYes: number;
      /**
       * Format: double
       * @description Values that change, and values that are new to people who are here.
       */
      changes: number;
      tags: number;
      lists: number;
      roster: number;
      /**
       * Format: double
       * @description Signed longer ago than the house rule allows to ask for a confirmation, and before the months after which evidence is old.
       */
      signedLongAgo: number;
      /** @description People by place with rules of its own. */
      places: {
        [key: string]: number;
      };
      giftsTotal: {
        currency: string;
        minor: number;
      }[];
    };
    BatchView: {
      id: number;
      name: string;
      fileName: string;
      state:
        | 'reading'
        | 'unreadable'
        | 'draft'
        | 'checking'
        | 'checked'
        | 'bringing'
        | 'stopped'
        | 'done'
        | 'taking-out'
        | 'taken-out'
        | 'failed';
      what: 'people' | 'refusals' | 'here' | 'gifts';
      /**
       * Format: double
       * @description The chapter that its new people go to.
       */
      chapterId: number;
      rows: number;
      createdAt: string;
      createdBy: string;
      found: components['schemas']['FileFindings'] | null;
      plan: components['schemas']['IntakePlan'] | null;
      draft: components['schemas']['IntakeDraft'] | null;
      /**
       * Format: double
       * @description Which save of it that is.
       */
      draftVersion: number;
      counts: {
        no?: number;
        gift?: number;
        new?: number;
        shares?: number;
        update?: number;
        same?: number;
        here?: number;
        hold?: number;
        doubled?: number;
        look?: number;
        skipped?: number;
        aside?: number;
        failed?: number;
      };
      /** @description Rows to look at, by why. */
      looks: {
        'two-people'?: number;
        'other-name-same-id'?: number;
        'same-name'?: number;
        'short-form'?: number;
        initial?: number;
        transposed?: number;
        alike?: number;
        'loose-email'?: number;
      };
      /**
       * Format: double
       * @description Rows that come in without one of their cells.
       */
      withFaults: number;
      /**
       * Format: double
       * @description Rows of which there is something to tell.
       */
      withHints: number;
      will: components['schemas']['BatchWill'] | null;
      /**
       * Format: double
       * @description Rows whose address said no before, and stays no.
       */
      stayNo: number;
      done: number;
      total: number;
      /**
       * Format: double
       * @description Rows a second, while running.
       */
      rate: number | null;
      problem: string | null;
      canTakeOut: string | null;
      /** @description Whether the file is still kept; deleted after the time set in Setup. */
      fileKept: boolean;
      /**
       * Format: double
       * @description What of a batch taken out had to stay.
       */
      stayed: number;
      /** @description A run of a feed, which goes on by itself. */
      ofFeed: boolean;
    };
    DoubleView: {
      row: number;
      why:
        | 'two-people'
        | 'other-name-same-id'
        | 'same-name'
        | 'short-form'
        | 'initial'
        | 'transposed'
        | 'alike'
        | 'loose-email'
        | null;
      fields: {
        key: string;
        name: string;
        row: string;
        theirs: {
          [key: string]: string;
        };
      }[];
      people: {
        id: number;
        score: number;
        reasons: string[];
        name: string;
        supporterId: number | null;
        rowNo: number | null;
      }[];
    };
    JobView: {
      id: number;
      kind: string;
      state: 'failed' | 'waiting' | 'running' | 'done';
      subject: string;
      link: string | null;
      done: number | null;
      total: number | null;
      /**
       * @description What these are counts of.
       * @enum {string}
       */
      unit: 'people' | 'rows' | 'steps';
      rate: number | null;
      by: string;
      createdAt: string;
      beganAt: string | null;
      endedAt: string | null;
      attempts: number;
      error: string | null;
    };
    LayoutView: {
      id: number;
      version: number;
      name: string;
      what: 'people' | 'refusals' | 'here' | 'gifts';
      header: string[];
      columns: components['schemas']['ColumnChoice'][];
      usedAt: string;
      madeBy: string | null;
    };
    AskRule: import('../letter').AskRule;
    AskedPerson: {
      id: number;
      name: string;
      /**
       * Format: double
       * @description Their last gift.
       */
      last: number;
      amounts: number[];
    };
    InlineMark: import('../letter').InlineMark;
    Inline: import('../letter').Inline;
    ListItem: import('../letter').ListItem;
    ColumnBlock: import('../letter').ColumnBlock;
    PassageBlock: import('../letter').PassageBlock;
    Block: import('../letter').Block;
    HouseStyle: import('../letter').HouseStyle;
    LetterDoc: import('../letter').LetterDoc;
    LettersView: {
      form: 'din-b' | 'us-10';
      /** @description Whether the files are there and are those of the latest asking. */
      made: boolean;
      /**
       * Format: double
       * @description Letters that are laid out.
       */
      done: number;
      /**
       * Format: double
       * @description Letters that there will be.
       */
      total: number;
      /** @description Why they could not be laid out. */
      problem: string | null;
      files: {
        id: number;
        kind: 'pdf' | 'csv';
        name: string;
        letters: number;
        from: number;
        to: number;
      }[];
      /** @description Letters whose person may not be written to any more since they were laid out. */
      refused: {
        number: number;
        supporterId: number;
        name: string;
        reason:
          | 'fell-out'
          | 'no-address'
          | 'do-not-contact'
          | 'said-no'
          | 'on-hold'
          | 'asked'
          | 'no-permission'
          | 'paused'
          | 'had-enough'
          | 'shared-address';
      }[];
      /** @description The day on which they were posted, as YYYY-MM-DD. */
      postedOn: string | null;
    };
    AheadView: {
      /** @description When it would leave. */
      at: string;
      /**
       * Format: double
       * @description Who may be written to now and not by then.
       */
      lapses: number;
      /**
       * Format: double
       * @description Who will have had enough by then, with what is planned before it.
       */
      enough: number;
      /**
       * Format: double
       * @description Of an appeal: who gave since the day that is named.
       */
      gave: number;
      /** @description As YYYY-MM-DD. */
      gaveSince: string;
      /** @description Of a text: who waits for a decent hour where they are, the soonest first. */
      waits: {
        zone: string;
        at: string;
        people: number;
      }[];
      /** @description Of an email: where most of it goes, and for how long at the pace of the mailing before. */
      domains: {
        domain: string;
        people: number;
        seconds: number | null;
      }[];
      /** @description About when the last one leaves; null where nothing tells it. */
      lastLeaves: string | null;
    };
    CheckedWords: {
      faults: components['schemas']['MessageFault'][];
      /** @description Worth a second look; nothing is held back for it. */
      doubts: string[];
    };
    ImageView: {
      id: number;
      name: string;
      alt: string;
      /** @description Where it lies; empty for none. */
      folder: string;
      width: number;
      height: number;
      bytes: number;
      src: string;
      /** @description What has not left and shows it, by name. */
      usedBy: string[];
    };
    MessageResults: {
      message: {
        id: number;
        name: string;
        channel: 'email' | 'text' | 'call' | 'post';
        state:
          | 'draft'
          | 'scheduled'
          | 'preparing'
          | 'posting'
          | 'calling'
          | 'standing'
          | 'sending'
          | 'paused'
          | 'stopped'
          | 'done';
        startedAt: string | null;
        /** @description Why it paused itself; null where a person did, or it is not paused. */
        pausedWhy: string | null;
      };
      counts: {
        opened: number;
        clicked: number;
        replied: number;
        failed: number;
        left: number;
        bounced: number;
        door: number;
        waiting: number;
        kept: number;
        sent: number;
        delivered: number;
        unsure: number;
        suppressed: number;
      };
      /** @description Those who were kept without it beside those whom it has gone to; null where nobody was. */
      without: {
        kept: {
          people: number;
          /**
           * Format: double
           * @description How many of them have given since it began to leave.
           */
          gave: number;
          /**
           * Format: double
           * @description How much, in hundredths.
           */
          given: number;
        };
        meant: {
          people: number;
          /**
           * Format: double
           * @description How many of them have given since it began to leave.
           */
          gave: number;
          /**
           * Format: double
           * @description How much, in hundredths.
           */
          given: number;
        };
        /**
         * Format: double
         * @description How much larger the share of givers is, 0 to 1, with its range at 95 % confidence.
         */
        more: number;
        low: number;
        high: number;
        /** @description Whether a difference is seen. */
        differs: boolean;
      } | null;
      rates: {
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
          | 'waiting'
          | 'kept'
          | 'suppressed';
        of: number;
        rate: number;
        low: number;
        high: number;
      }[];
      overTime: {
        at: string;
        sent: number;
        opened: number;
        clicked: number;
        replied: number;
        left: number;
      }[];
      links: {
        url: string;
        people: number;
      }[];
      /** @description Messages a second in the last ten seconds, and seconds left at that rate; null when nothing is under way. */
      pace: {
        rate: number;
        secondsLeft: number | null;
      } | null;
      /**
       * @description Which limit of the house holds the rest of a mailing back now.
       * @enum {string|null}
       */
      limited: 'warm-up' | 'day' | 'hour' | null;
      /** @description Those whose own time has not come, by their clock or as it is spread, and when the last of them gets it. */
      turn: {
        people: number;
        until: string;
      } | null;
      /** @description Texts that wait for a decent hour where their people are, and when the first of them leaves. */
      night: {
        people: number;
        until: string;
      } | null;
    };
    TemplateOrigin: {
      id: number;
      version: number;
      name: string | null;
    };
    GoView: {
      state: 'asked' | 'back' | 'agreed';
      /**
       * Format: double
       * @description The version of the words that it was said of.
       */
      version: number;
      askedBy: number | null;
      /**
       * Format: double
       * @description Who said it, by id; null where they are gone.
       */
      by: number | null;
      at: string;
      note: string;
    };
    GroupRef: {
      kind: 'segment' | 'list' | 'tag' | 'batch' | 'campaign' | 'message' | 'person';
      id: number;
      stage?: string;
      did?: 'got' | 'clicked' | 'not-clicked' | 'replied' | 'not-replied';
    };
    Recipients: {
      from: components['schemas']['GroupRef'][];
      chosen?: number[];
      minus: components['schemas']['GroupRef'][];
      without: number[];
      /** @description By post: one letter each, also to people of one household. */
      apart?: boolean;
    };
    TagTrigger: {
      on: 'clicked' | 'replied';
      tagId: number;
    };
    MessageView: {
      id: number;
      name: string;
      channel: 'email' | 'text' | 'call' | 'post';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      state:
        | 'draft'
        | 'scheduled'
        | 'preparing'
        | 'posting'
        | 'calling'
        | 'standing'
        | 'sending'
        | 'paused'
        | 'stopped'
        | 'done';
      subject: string;
      preheader: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
      /** @description The template whose words it began with; its name is null where it has been deleted. */
      template: components['schemas']['TemplateOrigin'] | null;
      /** @description The language and country that it is written for (BCP 47); null for the organization’s. */
      locale: string | null;
      /** @description The amounts that it asks for; null where it says none of its own. */
      ask: components['schemas']['AskRule'] | null;
      /** @description Of a text: values are written in the letters that cost least. */
      plainly: boolean;
      /**
       * Format: double
       * @description The teammate as whom it goes out.
       */
      senderId: number | null;
      /** @description What was said of it since it was handed over for a go; null where nobody asked. */
      go: components['schemas']['GoView'] | null;
      recipients: components['schemas']['Recipients'];
      scheduledAt: string | null;
      updatedAt: string;
      testedAt: string | null;
      tagTriggers: components['schemas']['TagTrigger'][];
      /** @description At that time where each of them is. */
      ownTime: boolean;
      /**
       * Format: double
       * @description Over so many hours from then on; null for all at once.
       */
      spreadHours: number | null;
      /**
       * Format: double
       * @description Of a hundred so many are kept without it, by lot; null for none.
       */
      keptShare: number | null;
      /**
       * Format: double
       * @description The campaign that it is a step of, and leaves with.
       */
      campaignId: number | null;
      /**
       * Format: double
       * @description The automatic message that it is one of.
       */
      automationId: number | null;
      /**
       * Format: double
       * @description The message that it is another wording of, and leaves with.
       */
      wordingOf: number | null;
      /** @description Sent "now": until when it is taken back without a trace. */
      leavesAt: string | null;
      /**
       * Format: double
       * @description Named by whoever saves: of two who save from one version the second is told.
       */
      version: number;
      groupVersion: number;
    };
    Overlap: {
      messageId: number;
      name: string;
      channel: 'email' | 'text' | 'call' | 'post';
      /** @description When that one leaves. */
      at: string;
      people: number;
    };
    OwnTimesView: {
      zones: {
        /** @description IANA. */
        zone: string;
        people: number;
        at: string;
        /**
         * @description Where clocks are put forward or back then: the time is left out there, or comes twice.
         * @enum {string|null}
         */
        change: 'left-out' | 'twice' | null;
      }[];
      /**
       * Format: double
       * @description For so many it is over already: they get it as soon as it begins.
       */
      over: number;
    };
    Preview: {
      supporter: {
        id: number;
        name: string;
      };
      subject: string;
      preheader: string;
      /** @description The headers that a mail leaves with, links of one’s own left out. */
      headers: {
        name: string;
        value: string;
      }[];
      html: string;
      text: string;
      parts: number;
      holes: string[];
    };
    ProofsView: {
      state: 'none' | 'waiting' | 'running' | 'done' | 'failed';
      /** @description Found for the words and the group of today. */
      isCurrent: boolean;
      done: number;
      total: number;
      seconds: number | null;
      found: {
        kind:
          | 'holes'
          | 'no-first-name'
          | 'caps'
          | 'address'
          | 'test'
          | 'digits'
          | 'couple'
          | 'right-to-left'
          | 'non-latin'
          | 'longest-name'
          | 'longest-subject'
          | 'shortest-subject'
          | 'longest-text'
          | 'shortest-text'
          | 'most-segments'
          | 'most-passages'
          | 'fewest-passages'
          | 'largest-ask'
          | 'no-ask';
        people: number;
        /**
         * Format: double
         * @description How long, how many, how much, of those shown.
         */
        measure: number | null;
        readers: {
          id: number;
          name: string;
        }[];
      }[];
    };
    ReaderView: {
      id: number;
      name: string;
      /** @description Where it would go; null where there is no such address. */
      address: string | null;
      /** @description Why they would not get it; null of those who would. */
      note: string | null;
    };
    ResultPerson: {
      supporterId: number;
      name: string;
      address: string;
      at: string | null;
      detail: string;
      deliveryId: number;
    };
    SavedWords: {
      version: number;
      faults: components['schemas']['MessageFault'][];
      /** @description Worth a second look; nothing is held back for it. */
      doubts: string[];
    };
    TextAnswers: {
      stop: string;
      help: string;
      start: string;
    };
    DncAdded: {
      added: number;
      already: number;
      /** @description Lines that are none of the four kinds, with their number and why. */
      refused: {
        line: number;
        text: string;
        reason: string;
      }[];
      /**
       * Format: double
       * @description Addresses on file that are closed by this.
       */
      closed: number;
    };
    DncRow: {
      id: number;
      kind: 'email' | 'mobile' | 'domain' | 'range';
      /** @description Empty after erasure: only the keyed hash is left. */
      shown: string | null;
      how: string;
      note: string;
      by: string | null;
      at: string;
    };
    RuleEffect: {
      channel: 'email' | 'text' | 'call' | 'post';
      askedFor: 'news' | 'appeals' | 'volunteering' | 'service' | 'lists';
      /**
       * Format: double
       * @description People who could not be written to before and can after; and the other way round.
       */
      opens: number;
      closes: number;
    };
    HouseRules: import('../permission').HouseRules;
    RulesView: {
      /**
       * Format: double
       * @description The version that these rules are, to be named when they are changed.
       */
      version: number;
      rules: components['schemas']['HouseRules'];
      /** @description How many supporters count to each place's rules. */
      people: {
        [key: string]: number;
      };
      history: {
        id: number;
        words: string;
        effects: components['schemas']['RuleEffect'][];
        by: string | null;
        at: string;
      }[];
      /** @description A change that waits for a second owner. */
      waiting: {
        words: string;
        loosens: string[];
        by: string;
        mine: boolean;
        at: string;
      } | null;
    };
    RulesWeighed: {
      words: string[];
      /** @description What it loosens, a sentence each, whether or not it opens anybody today. */
      loosens: string[];
      effects: components['schemas']['RuleEffect'][];
      /** @description It needs a second owner: saved, it waits for one. */
      waits: boolean;
    };
    ProblemDetails: {
      type: string;
      title: string;
      status: number;
      detail: string;
      faults?: {
        field: string;
        code: string;
        message: string;
      }[];
      /**
       * Format: double
       * @description The supporter whose record stands in the place of the one asked for.
       */
      instead?: number;
      /** @description Somebody saved it meanwhile: what is there now is newer than what was changed. */
      newer?: boolean;
      /** @description What stands there now, where that is one value. */
      now?: string;
    };
    HouseholdView: {
      id: number;
      /** @description As they are greeted together. */
      greeting: string;
      /** @description Words kept for it; null where it is made of the first names. */
      own: string | null;
      members: {
        id: number;
        name: string;
      }[];
    };
    MergeLine: {
      /** @description `name`, `place`, `externalId`, or `field:ID`. */
      key: string;
      label: string;
      kept: string;
      gone: string;
      /**
       * @description Which of them stays, where nobody chooses: the one kept, unless it has nothing there.
       * @enum {string}
       */
      usual: 'kept' | 'gone';
    };
    MergePreview: {
      kept: {
        id: number;
        name: string;
        since: string;
      };
      gone: {
        id: number;
        name: string;
        since: string;
      };
      lines: components['schemas']['MergeLine'][];
      /** @description What comes over, in sentences. */
      comesOver: string[];
    };
    NoteView: {
      id: number;
      kind: 'call' | 'note';
      body: string;
      by: string;
      at: string;
      changedAt: string | null;
      mine: boolean;
    };
    PersonalVerdict: {
      verdict:
        | 'fell-out'
        | 'no-address'
        | 'do-not-contact'
        | 'said-no'
        | 'on-hold'
        | 'asked'
        | 'no-permission'
        | 'paused'
        | 'had-enough'
        | 'shared-address'
        | 'send';
      words: string;
      /** @description Where it would go. */
      to: string | null;
    };
    CountedStep: {
      words: string;
      /**
       * Format: double
       * @description How many pass this rule alone.
       */
      alone: number;
      /**
       * Format: double
       * @description How many its group comes to with this rule and all before it.
       */
      left: number;
      inner: components['schemas']['CountedStep'][];
    };
    SegmentCount: {
      everybody: number;
      total: number;
      /** @description The top rules of the tree, or its one line. */
      steps: components['schemas']['CountedStep'][];
      /** @description How many of them may be written to for appeals; null where it was not asked for. */
      reach: {
        email: number;
        text: number;
        neither: number;
      } | null;
    };
    SegmentSize: {
      day: string;
      people: number;
    };
    SegmentVersion: {
      id: number;
      name: string;
      tree: components['schemas']['Rule'];
      words: string;
      /**
       * Format: double
       * @description How many it took in when it was saved.
       */
      people: number | null;
      by: string;
      at: string;
    };
    SegmentView: {
      id: number;
      name: string;
      tree: components['schemas']['Rule'];
      words: string;
      version: number;
      usedBy: {
        id: number;
        name: string;
      }[];
    };
    CheckedRecord: import('../delivery').CheckedRecord;
    MailLimits: import('../delivery').MailLimits;
    SenderView: {
      from: string;
      lists: string;
      checkedAt: string | null;
      records: components['schemas']['CheckedRecord'][];
      /** @description Whether each counts as of the domain in From (DMARC). */
      aligned: {
        signature: boolean;
        returnPath: boolean;
      };
      demands: {
        demand:
          | 'signed'
          | 'spf'
          | 'dmarc'
          | 'aligned'
          | 'one-click'
          | 'way-out'
          | 'complaints'
          | 'form'
          | 'tls'
          | 'reverse';
        /** @description Null where only the provider can say. */
        met: boolean | null;
      }[];
      /** @description Of the last 30 days. */
      complaints: {
        reached: number;
        complained: number;
      };
      /** @description The mail that was sent through last. */
      through: {
        at: string;
        fault: string | null;
        backAt: string | null;
        signatures: {
          selector: string;
          holds: boolean;
        }[];
        /** @description Whether it left encrypted; null where no server said. */
        tls: boolean | null;
      } | null;
      number: {
        number: string;
        kind: 'long' | 'short' | 'toll-free' | 'name' | null;
        registration: 'none' | 'waiting' | 'registered' | null;
        perSecond: number | null;
      } | null;
      /** @description How much mail may leave; null for any number. */
      limits: components['schemas']['MailLimits'] | null;
      /**
       * Format: double
       * @description How many may leave now; null for any number.
       */
      mailsLeft: number | null;
    };
    ChoiceUse: {
      choice: string;
      people: number;
    };
    ConsentStatusView: {
      channel: 'email' | 'text' | 'call' | 'post';
      scope: components['schemas']['Scope'];
      scopeName: string;
      state: 'yes' | 'implied' | 'asked' | 'never' | 'no';
      entryId: number | null;
      /** @description Last moment of an implied permission. */
      until: string | null;
      pausedUntil: string | null;
    };
    ContactPointView: {
      id: number;
      kind: 'email' | 'mobile' | 'post';
      shown: string;
      /**
       * @description Of a number, where anybody knows: a landline is called and never texted.
       * @enum {string|null}
       */
      line: 'mobile' | 'landline' | 'voip' | 'other' | null;
      /** @description Of a postal address. */
      parts: {
        street?: string;
        city?: string;
        region?: string;
        postcode?: string;
        /** @description ISO 3166-1; empty where it is not said. */
        country?: string;
      } | null;
      onHold: boolean;
      holdReason: string | null;
      sharedWith: {
        id: number;
        name: string;
      }[];
    };
    Conversion: {
      values: number;
      wont: number;
      /** @description Some of those that would not. */
      examples: {
        supporterId: number;
        name: string;
        value: string;
        reason: string;
      }[];
      /** @description Some of those that would, as they are and as they would be. */
      preview: {
        from: string;
        to: string;
      }[];
    };
    DeletionNotice: {
      /** @description Why it can't go at all, with the way out. */
      blocked: string | null;
      takes: string;
    };
    FieldAdminView: {
      /**
       * Format: double
       * @description How many people have a value.
       */
      people: number;
      /** @description As it is written in a message. */
      mergeName: string;
      id: number;
      name: string;
      type:
        | 'text'
        | 'longtext'
        | 'number'
        | 'money'
        | 'date'
        | 'datetime'
        | 'birthday'
        | 'yesno'
        | 'choice'
        | 'choices'
        | 'country'
        | 'region'
        | 'place'
        | 'link'
        | 'file';
      section: string;
      fallback: string | null;
      /** @description What a choice field offers; null where it takes what people have. */
      choices: string[] | null;
      /** @description What is told beside it, where it is filled in. */
      help: string;
      /** @description For owners and organizers alone. */
      sensitive: boolean;
      /** @description Whoever is asked for it on a form has to answer. */
      required: boolean;
    };
    FieldDeletion: {
      values: number;
      blocked: string | null;
    };
    FieldView: {
      id: number;
      name: string;
      type:
        | 'text'
        | 'longtext'
        | 'number'
        | 'money'
        | 'date'
        | 'datetime'
        | 'birthday'
        | 'yesno'
        | 'choice'
        | 'choices'
        | 'country'
        | 'region'
        | 'place'
        | 'link'
        | 'file';
      section: string;
      fallback: string | null;
      /** @description What a choice field offers; null where it takes what people have. */
      choices: string[] | null;
      /** @description What is told beside it, where it is filled in. */
      help: string;
      /** @description For owners and organizers alone. */
      sensitive: boolean;
      /** @description Whoever is asked for it on a form has to answer. */
      required: boolean;
    };
    EntryView: {
      id: number;
      channel: 'email' | 'text' | 'call' | 'post';
      scope: components['schemas']['Scope'];
      scopeName: string;
      state: 'yes' | 'implied' | 'asked' | 'no' | 'pause' | 'start' | 'back';
      at: string;
      until: string | null;
      how:
        | 'file'
        | 'paper'
        | 'form'
        | 'phone'
        | 'in-person'
        | 'reply'
        | 'one-click'
        | 'keyword'
        | 'preferences'
        | 'objection'
        | 'complaint'
        | 'gift'
        | 'membership'
        | 'volunteering'
        | 'inquiry'
        | 'hand'
        | 'feed';
      words: string;
      source: string;
      recordedBy: string | null;
      /** @description Null where it was said without one, and holds at every address. */
      address: string | null;
      takenBack: boolean;
      /** @description Older than the house rules of the person's place want evidence to be. */
      old: boolean;
      evidence: {
        id: number;
        name: string;
      } | null;
    };
    MembershipView: {
      id: number;
      name: string;
      since: string;
      /** @description "by Rosa Oduya", "with the batch Spring fair". */
      how: string;
    };
    RecordView: {
      id: number;
      firstName: string;
      lastName: string;
      chapter: {
        id: number;
        name: string;
      };
      createdAt: string;
      place: {
        country: string | null;
        region: string | null;
        rulesOf: string;
      };
      contactPoints: components['schemas']['ContactPointView'][];
      fields: {
        id: number;
        name: string;
        type:
          | 'text'
          | 'longtext'
          | 'number'
          | 'money'
          | 'date'
          | 'datetime'
          | 'birthday'
          | 'yesno'
          | 'choice'
          | 'choices'
          | 'country'
          | 'region'
          | 'place'
          | 'link'
          | 'file';
        section: string;
        fallback: string | null;
        /** @description What a choice field offers; null where it takes what people have. */
        choices: string[] | null;
        /** @description What is told beside it, where it is filled in. */
        help: string;
        /** @description For owners and organizers alone. */
        sensitive: boolean;
        /** @description Whoever is asked for it on a form has to answer. */
        required: boolean;
        value: components['schemas']['FieldValue'] | null;
        shown: string;
      }[];
      tags: components['schemas']['MembershipView'][];
      lists: {
        id: number;
        name: string;
        since: string;
        /** @description "by Rosa Oduya", "with the batch Spring fair". */
        how: string;
        isPublic: boolean;
      }[];
      segments: {
        id: number;
        name: string;
      }[];
      /** @description Campaigns that they are on the roster of, with where they stand and where they could. */
      rosters: {
        id: number;
        name: string;
        stage: string;
        stages: string[];
      }[];
      gifts: {
        id: number;
        amount: number;
        on: string;
        note: string;
      }[];
      consent: components['schemas']['ConsentStatusView'][];
      entries: components['schemas']['EntryView'][];
      household: components['schemas']['HouseholdView'] | null;
      /** @description As the person is greeted, with whoever they live with. */
      greeting: string;
      /** @description Records that were brought into this one and could be parted again. */
      mergedFrom: {
        mergingId: number;
        name: string;
        at: string;
      }[];
    };
    SupporterRow: {
      id: number;
      firstName: string;
      lastName: string;
      chapter: string;
      email: string | null;
      mobile: string | null;
      tags: number;
      lastGift: {
        amount: number;
        on: string;
      } | null;
      /** @description Custom fields that were asked for, formatted, by their id. */
      values: {
        [key: string]: string;
      };
      may: {
        email: 'yes' | 'implied' | 'asked' | 'never' | 'no';
        text: 'yes' | 'implied' | 'asked' | 'never' | 'no';
      };
    };
    TagUse: {
      chapter: string;
      people: number;
    };
    TimelineItem: {
      at: string;
      kind: 'delivery' | 'permission' | 'gift' | 'edit' | 'reply' | 'batch' | 'note';
      tone: 'good' | 'plain' | 'bad';
      title: string;
      detail: string;
      link: string | null;
      /**
       * Format: double
       * @description The entry of the history that can be undone here.
       */
      undo: number | null;
      note: components['schemas']['NoteView'] | null;
    };
    LinkView: {
      kind: 'invitation' | 'password';
      name: string;
      email: string;
      organization: string;
    };
    OrganizationView: {
      name: string;
      legalName: string;
      postalAddress: string;
      country: string;
      timeZone: string;
      fiscalMonth: number;
      currency: string;
      locale: string;
      languages: ('en' | 'es' | 'fr' | 'de')[];
      fromEmail: string;
      bounceDomain: string;
      textFrom: string;
      /** @description The page on which one gives; empty where there is none. */
      givingPage: string;
      /** @description The host of short links in texts; empty for the server’s own address. */
      linkUrl: string;
      /**
       * Format: double
       * @description What a part of a text costs, in units of the currency; null where nobody said.
       */
      textPrice: number | null;
      /** @description Where the logo is to be had; null where there is none. */
      logo: string | null;
      version: number;
      chapters: {
        id: number;
        name: string;
        postalAddress: string;
        places: string;
        people: number;
      }[];
      /** @description What is still missing before a message can leave, a sentence each. */
      missing: string[];
    };
    Profile: {
      name: string;
      email: string;
      title: string;
      mobile: string;
      answersTo: string;
      signature: string;
      /**
       * Format: double
       * @description A picture of the library beside the signature.
       */
      pictureId: number | null;
    };
    SessionLine: {
      id: number;
      network: string;
      browser: string;
      since: string;
      usedAt: string;
      isThis: boolean;
    };
    SessionView: {
      teammate: {
        id: number;
        name: string;
        email: string;
        role: 'viewer' | 'writer' | 'organizer' | 'owner';
        mobile: string;
        chapterIds: number[] | null;
      };
      organization: {
        id: number;
        name: string;
        country: string;
        locale: string;
        currency: string;
        timeZone: string;
        /** @description As a link in a text goes out: as long as each. */
        shortLink: string;
        /** @description Languages whose national tables the text gateway takes. */
        shiftTables: ('tr' | 'es' | 'pt')[];
        textFrom: string;
        languages: ('en' | 'es' | 'fr' | 'de')[];
      };
      /** @description The chapter being worked in; null for all that the teammate may see. */
      chapter: {
        id: number;
        name: string;
      } | null;
      chapters: {
        id: number;
        name: string;
      }[];
      csrf: string;
      standins: {
        mailroom: string | null;
        handsets: string | null;
      };
    };
    TeammateView: {
      id: number;
      name: string;
      email: string;
      role: 'viewer' | 'writer' | 'organizer' | 'owner';
      /** @description Those they are bound to; null for who works in all. */
      chapterIds: number[] | null;
      /**
       * @description Invited and not yet here; here; gone.
       * @enum {string}
       */
      state: 'here' | 'gone' | 'invited';
      signedInAt: string | null;
      /** @description What became of the last mail with a link; null where there was none. */
      invitation: {
        state: 'failed' | 'waiting' | 'sent' | 'expired';
        detail: string | null;
        expiresAt: string;
      } | null;
      sessions: number;
    };
    WaitingFor: {
      messages: number;
      batches: number;
      callLists: number;
      /**
       * Format: double
       * @description Replies that are theirs to answer.
       */
      replies: number;
    };
    Words: {
      subject: string;
      preheader: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
    };
    StarterView: {
      key: string;
      name: string;
      note: string;
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      words: {
        channel: 'email' | 'text' | 'call' | 'post';
        words: components['schemas']['Words'];
      }[];
    };
    TemplateLine: {
      id: number;
      name: string;
      /** @description Where it lies; empty for none. */
      folder: string;
      channel: 'email' | 'text' | 'call' | 'post';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      /** @description When to use it. */
      note: string;
      /** @description An organizer said that it is the team's. */
      isTeam: boolean;
      /** @description The caller made it. */
      isOwn: boolean;
      /** @description Whose it is; null where they are gone. */
      owner: string | null;
      /**
       * Format: double
       * @description How many messages came from it.
       */
      uses: number;
      archived: boolean;
      updatedAt: string;
      /** @description The first words of it. */
      beginning: string;
    };
    TemplateView: {
      id: number;
      name: string;
      /** @description Where it lies; empty for none. */
      folder: string;
      channel: 'email' | 'text' | 'call' | 'post';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      /** @description When to use it. */
      note: string;
      /** @description An organizer said that it is the team's. */
      isTeam: boolean;
      /** @description The caller made it. */
      isOwn: boolean;
      /** @description Whose it is; null where they are gone. */
      owner: string | null;
      /**
       * Format: double
       * @description How many messages came from it.
       */
      uses: number;
      archived: boolean;
      updatedAt: string;
      subject: string;
      preheader: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
      locale: string | null;
      ask: components['schemas']['AskRule'] | null;
      plainly: boolean;
      /** @description Whether the caller may change, archive or delete it. */
      mayChange: boolean;
      /**
       * Format: double
       * @description Named by whoever saves: of two who save from one version the second is told.
       */
      version: number;
    };
    TemplateUse: {
      id: number;
      name: string;
    };
    TemplateUses: {
      open: components['schemas']['TemplateUse'][];
      /**
       * Format: double
       * @description Messages that have left.
       */
      gone: number;
    };
    WordVersion: {
      version: number;
      /** @description Who wrote it; null where they are gone. */
      by: string | null;
      at: string;
      words: {
        subject: string;
        preheader: string;
        letter: components['schemas']['LetterDoc'] | null;
        text: string;
        locale: string | null;
        ask: components['schemas']['AskRule'] | null;
        plainly: boolean;
      };
    };
    DoneView: {
      answered: number;
      broughtIn: number;
      sent: number;
    };
    LeavingMessage: {
      id: number;
      name: string;
      state:
        | 'draft'
        | 'scheduled'
        | 'preparing'
        | 'posting'
        | 'calling'
        | 'standing'
        | 'sending'
        | 'paused'
        | 'stopped'
        | 'done';
      channel: 'email' | 'text' | 'call' | 'post';
      when: string | null;
      /** @description Why it paused itself. */
      pausedWhy: string | null;
      /**
       * Format: double
       * @description Whom the last look found for it; of one that leaves already, who is still to get it. Null before a look.
       */
      people: number | null;
    };
    StopTask: {
      taskId: number;
      supporterId: number | null;
      name: string;
      words: string;
      at: string;
    };
    WaitingBatch: {
      id: number;
      name: string;
      state:
        | 'reading'
        | 'unreadable'
        | 'draft'
        | 'checking'
        | 'checked'
        | 'bringing'
        | 'stopped'
        | 'done'
        | 'taking-out'
        | 'taken-out'
        | 'failed';
      rows: number;
      /** @description Who began it, and when. */
      by: string;
      at: string;
    };
    TodayView: {
      batches: components['schemas']['WaitingBatch'][];
      /** @description Batches that came in lately and that nobody has looked at since. */
      arrived: {
        id: number;
        name: string;
        at: string;
        people: number;
      }[];
      messages: components['schemas']['LeavingMessage'][];
      /** @description Automatic messages that were set going for so many at once that they wait for a look. */
      piles: {
        id: number;
        name: string;
        people: number;
        at: string;
      }[];
      /** @description Feeds that stopped by themselves, and why. */
      feeds: {
        id: number;
        name: string;
        problem: string;
        at: string;
      }[];
      /**
       * Format: double
       * @description How many people wait for an answer.
       */
      replies: number;
      /** @description The one that waits longest. */
      firstReply: {
        name: string;
        words: string;
        message: string | null;
        at: string;
      } | null;
      unsure: number;
      /**
       * Format: double
       * @description The newest message with an unsure mail, and since when the oldest is unsure.
       */
      unsureMessageId: number | null;
      unsureSince: string | null;
      onHold: number;
      /** @description Drafts that somebody handed over for a go, the longest waiting first. */
      goes: {
        id: number;
        name: string;
        by: string;
        at: string;
        note: string;
      }[];
      drafts: number;
      /** @description The draft that was changed last. */
      draft: {
        id: number;
        name: string;
        at: string;
      } | null;
      /**
       * Format: double
       * @description How many things are known to be wrong with as whom mail goes out.
       */
      sender: number;
      /** @description People whose implied permission for appeals by email lapses within this many days. */
      lapsing: {
        people: number;
        days: number;
      };
      /** @description Texts that plainly ask to stop, held until a person has read them. */
      stops: components['schemas']['StopTask'][];
      /** @description People who asked to be erased; only owners see them. */
      erasures: {
        taskId: number;
        supporterId: number;
        name: string;
        at: string;
      }[];
    };
    WeekView: {
      figures: {
        kind: 'replied' | 'left' | 'joined' | 'gave';
        now: number;
        usual: number | null;
      }[];
      /**
       * Format: double
       * @description Over how many weeks "usually" is taken.
       */
      weeks: number;
    };
    WordNoteView: {
      id: number;
      /** @description What they are called. */
      by: string | null;
      at: string;
      body: string;
      /** @description The words that it is about; empty for all of it. */
      quote: string;
      answers: {
        id: number;
        /** @description What they are called. */
        by: string | null;
        at: string;
        body: string;
      }[];
      settledBy: string | null;
      settledAt: string | null;
    };
    SignInBody: {
      email: string;
      password: string;
    };
    ChooseChapterBody: {
      chapterId: number | null;
    };
    SaveProfileBody: {
      name: string;
      title: string;
      mobile: string;
      answersTo: string;
      signature: string;
      /** @default null */
      pictureId: number | null;
      was: {
        name: string;
        title: string;
        mobile: string;
        answersTo: string;
        signature: string;
        /** @default null */
        pictureId: number | null;
      };
    };
    ChangePasswordBody: {
      current: string;
      password: string;
    };
    IdParams: {
      id: number;
    };
    ForgottenBody: {
      email: string;
    };
    LinkParams: {
      token: string;
    };
    UseLinkBody: {
      password: string;
      /** @default  */
      name: string;
    };
    SupporterQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      search?: string;
      tag?: number;
      list?: number;
      batch?: number;
      hold?: boolean;
    };
    RenameSupporterBody: {
      firstName: string;
      lastName: string;
      was?: string;
    };
    FieldParams: {
      id: number;
      fieldId: number;
    };
    SetFieldBody: {
      text: string;
      was?: string;
    };
    TagParams: {
      id: number;
      tagId: number;
    };
    ListParams: {
      id: number;
      listId: number;
    };
    AddEntryBody: {
      contactPointId: number;
      channel: 'email' | 'text' | 'call' | 'post';
      scope: components['schemas']['Scope'];
      state: 'yes' | 'no' | 'implied' | 'pause';
      how:
        | 'file'
        | 'paper'
        | 'form'
        | 'phone'
        | 'in-person'
        | 'reply'
        | 'one-click'
        | 'keyword'
        | 'preferences'
        | 'objection'
        | 'complaint'
        | 'gift'
        | 'membership'
        | 'volunteering'
        | 'inquiry'
        | 'hand'
        | 'feed';
      on: string;
      words: string;
      until?: string;
      evidenceId?: number;
    };
    ObjectionBody: {
      how: 'phone' | 'paper' | 'in-person' | 'reply';
      on: string;
      words: string;
    };
    EvidenceParams: {
      id: number;
      evidenceId: number;
    };
    SetPlaceBody: {
      country: string | null;
      region: string | null;
      was: {
        country: string | null;
        region: string | null;
      };
    };
    AddGiftBody: {
      amount: number;
      on: string;
      /** @default  */
      note: string;
    };
    MakeFieldBody: {
      name: string;
      type:
        | 'text'
        | 'longtext'
        | 'number'
        | 'money'
        | 'date'
        | 'datetime'
        | 'birthday'
        | 'yesno'
        | 'choice'
        | 'choices'
        | 'country'
        | 'region'
        | 'place'
        | 'link'
        | 'file';
      /** @default null */
      fallback: string | null;
      /** @default  */
      section: string;
      /** @default [] */
      choices: string[];
    };
    GroupsQuery: {
      /** @default true */
      counted: boolean;
    };
    NewPostal: import('../common').NewPostal;
    AddContactBody: {
      kind: 'email' | 'mobile' | 'post';
      text?: string & unknown;
      line?: 'mobile' | 'landline';
      post?: components['schemas']['NewPostal'];
    };
    PointParams: {
      id: number;
      pointId: number;
    };
    ChangeContactBody: {
      kind: 'email' | 'mobile' | 'post';
      text?: string & unknown;
      line?: 'mobile' | 'landline';
      post?: components['schemas']['NewPostal'];
      was: string;
    };
    TimelineQuery: {
      kinds?: string;
    };
    UndoParams: {
      id: number;
      auditId: number;
    };
    NoteBody: {
      body: string;
    };
    NoteParams: {
      id: number;
      noteId: number;
    };
    ChangeNoteBody: {
      body: string;
      was: string;
    };
    JoinHouseholdBody: {
      withId: number;
    };
    HouseholdGreetingBody: {
      greeting: string | null;
      was: string;
    };
    MergeQuery: {
      withId: number;
    };
    MergeRecordsBody: {
      goneId: number;
      /** @default {} */
      keep: {
        [key: string]: 'kept' | 'gone';
      };
    };
    UnmergeParams: {
      id: number;
      mergingId: number;
    };
    PersonExportQuery: {
      /**
       * @default json
       * @enum {string}
       */
      as: 'json' | 'csv' | 'vcf';
    };
    BatchesQuery: {
      /**
       * @default all
       * @enum {string}
       */
      state: 'open' | 'done' | 'all';
      by?: number;
      from?: string;
      to?: string;
      source?: string;
    };
    SheetFormParams: {
      form: 'csv' | 'xlsx';
    };
    ReadAgainBody: {
      reading: components['schemas']['ParseOptions'];
      what?: 'people' | 'refusals' | 'here' | 'gifts';
    };
    KeepDraftBody: {
      step: string;
      name: string;
      plan: components['schemas']['DraftPlan'];
      basedOn: number;
    };
    IntakePlanBody: components['schemas']['IntakePlan'];
    BatchRowsQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      verdict?:
        | 'new'
        | 'shares'
        | 'update'
        | 'same'
        | 'here'
        | 'no'
        | 'hold'
        | 'gift'
        | 'doubled'
        | 'look'
        | 'skipped'
        | 'aside'
        | 'failed';
      why?: string;
      only?:
        | 'faults'
        | 'hints'
        | 'strangers'
        | 'email'
        | 'text'
        | 'refusing'
        | 'groups'
        | 'changes'
        | 'saidNo'
        | 'doNotContact'
        | 'onHold'
        | 'alreadyYes';
    };
    BatchRowParams: {
      id: number;
      row: number;
    };
    DecideRowsBody: {
      rows?: number[];
      why?: string;
      as: 'merge' | 'new' | 'skip';
      supporterId?: number;
      /** @default [] */
      keep: string[];
    };
    BatchSheetParams: {
      id: number;
      form: 'csv' | 'xlsx';
    };
    ChangeLayoutBody: {
      name?: string;
      columns?: components['schemas']['ColumnChoice'][];
      basedOn: number;
    };
    HouseFilesBody: {
      days: number;
      was: number;
    };
    MakeCampaignBody: {
      name: string;
      kind: 'appeal' | 'thank-you' | 'update';
      appealCode: string | null;
      stages: string[];
    };
    ChangeCampaignBody: {
      name: string;
      kind: 'appeal' | 'thank-you' | 'update';
      appealCode: string | null;
      stages: string[];
      isOpen: boolean;
      /** @default {} */
      renamed: {
        [key: string]: string;
      };
      basedOn: number;
    };
    RosterQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      stage?: string;
    };
    RosterGroup:
      | {
          ids: number[];
        }
      | {
          kind: 'list' | 'tag' | 'segment' | 'batch';
          id: number;
        };
    RosterPutBody: {
      group: components['schemas']['RosterGroup'];
      stage: string;
    };
    RosterOffBody: {
      group: components['schemas']['RosterGroup'];
    };
    MakeTagBody: {
      name: string;
      handedDown?: boolean;
    };
    ChangeTagBody: {
      name: string;
      handedDown?: boolean;
      was: {
        name: string;
        handedDown: boolean;
      };
    };
    JoinTagBody: {
      intoId: number;
    };
    MakeListBody: {
      name: string;
      /** @default false */
      isPublic: boolean;
      /** @default  */
      description: string;
      /** @default  */
      why: string;
      folder?: string;
      onPreferences?: boolean;
      byForm?: boolean;
    };
    OrderListsBody: {
      ids: number[];
    };
    MoveListsBody: {
      ids: number[];
      folder: string;
    };
    ChangeListBody: {
      name: string;
      /** @default false */
      isPublic: boolean;
      /** @default  */
      description: string;
      /** @default  */
      why: string;
      folder?: string;
      onPreferences?: boolean;
      byForm?: boolean;
      basedOn: number;
    };
    SaveSegmentBody: {
      name: string;
      tree: components['schemas']['Rule'];
    };
    ChangeSegmentBody: {
      name: string;
      tree: components['schemas']['Rule'];
      basedOn: number;
    };
    CountSegmentBody: {
      tree: components['schemas']['Rule'];
      /** @default true */
      reach: boolean;
    };
    ListPeopleBody: {
      tree: components['schemas']['Rule'];
      /** @default name */
      by:
        | number
        | ('name' | 'created' | 'updated' | 'country' | 'region' | 'postcode' | 'externalId' | 'household');
      /** @default false */
      descending: boolean;
      /** @default [] */
      fields: number[];
      after?: string;
      /** @default 100 */
      limit: number;
    };
    SnapshotSegmentBody: {
      name: string;
    };
    ExplainParams: {
      id: number;
      supporterId: number;
    };
    FinderQuery: {
      text: string;
    };
    SavePeopleViewBody: {
      name: string;
      tree: components['schemas']['Rule'];
      by:
        | number
        | ('name' | 'created' | 'updated' | 'country' | 'region' | 'postcode' | 'externalId' | 'household');
      descending: boolean;
      fields: number[];
      basedOn: number | null;
    };
    PeopleGroup:
      | {
          ids: number[];
        }
      | {
          tree: components['schemas']['Rule'];
          /** @default [] */
          without: number[];
        };
    PrintAct: {
      do: 'print';
      form: 'call' | 'door' | 'labels';
      /**
       * @default LETTER
       * @enum {string}
       */
      paper: 'A4' | 'LETTER';
      /** @default  */
      title: string;
      /**
       * @default appeals
       * @enum {string}
       */
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      /** @default [] */
      columns: (number | ('phone' | 'email' | 'address' | 'tags' | 'last-gift' | 'stage' | 'notes'))[];
      /** @default 1 */
      noteLines: number;
      /**
       * @default letter-30
       * @enum {string}
       */
      labels: 'a4-21' | 'letter-30';
      /** @default 0 */
      used: number;
      /** @default true */
      together: boolean;
      /** @default null */
      callListId: number | null;
    };
    BulkAct:
      | {
          do: 'tag';
          tagId: number;
          on: boolean;
        }
      | {
          do: 'list';
          listId: number;
          on: boolean;
        }
      | {
          do: 'roster';
          campaignId: number;
          stage: string | null;
        }
      | {
          do: 'field';
          fieldId: number;
          text: string;
        }
      | {
          do: 'permission';
          channel: 'email' | 'text';
          scopes: components['schemas']['Scope'][];
          how: 'paper' | 'phone' | 'in-person' | 'form';
          on: string;
          words: string;
          voucher: string;
        }
      | {
          do: 'export';
          form: 'csv' | 'xlsx' | 'vcard' | 'json';
          /** @default [] */
          fields: number[];
        }
      | components['schemas']['PrintAct']
      | {
          do: 'erase';
        };
    BeginBulkBody: {
      group: components['schemas']['PeopleGroup'];
      act: components['schemas']['BulkAct'];
    };
    MakeCallListBody: {
      name: string;
      group: components['schemas']['PeopleGroup'];
      /** @default null */
      campaignId: number | null;
      /** @default  */
      script: string;
      /**
       * @default appeals
       * @enum {string}
       */
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
    };
    CallPeopleQuery: {
      /** @default 0 */
      after: number;
      /** @default 100 */
      limit: number;
      /**
       * @default all
       * @enum {string}
       */
      who: 'all' | 'may' | 'open' | 'again';
    };
    CallParams: {
      id: number;
      position: number;
    };
    AnswerCallBody: {
      outcome: string | null;
      /** @default  */
      note: string;
      was: {
        outcome: string | null;
        note: string;
      };
      /** @default false */
      noMoreCalls: boolean;
    };
    OrderFieldsBody: {
      ids: number[];
    };
    ChangeField: {
      name: string;
      section: string;
      fallback: string | null;
      help: string;
      sensitive: boolean;
      /** @default false */
      required: boolean;
      choices: string[] | null;
    };
    ChangeFieldBody: {
      name: string;
      section: string;
      fallback: string | null;
      help: string;
      sensitive: boolean;
      /** @default false */
      required: boolean;
      choices: string[] | null;
      was: components['schemas']['ChangeField'];
    };
    FieldTypeQuery: {
      type:
        | 'text'
        | 'longtext'
        | 'number'
        | 'money'
        | 'date'
        | 'datetime'
        | 'birthday'
        | 'yesno'
        | 'choice'
        | 'choices'
        | 'country'
        | 'region'
        | 'place'
        | 'link'
        | 'file';
    };
    FieldTypeBody: {
      type:
        | 'text'
        | 'longtext'
        | 'number'
        | 'money'
        | 'date'
        | 'datetime'
        | 'birthday'
        | 'yesno'
        | 'choice'
        | 'choices'
        | 'country'
        | 'region'
        | 'place'
        | 'link'
        | 'file';
    };
    RenameChoiceBody: {
      from: string;
      to: string;
    };
    RegionsQuery: {
      country: string;
    };
    MakeMessageBody: {
      from?:
        | {
            templateId: number;
          }
        | {
            starter: string;
          };
      name: string;
      channel: 'email' | 'text' | 'post';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
    };
    SaveMessageBody: {
      name: string;
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      subject: string;
      preheader: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
      locale?: string | null;
      ask?: components['schemas']['AskRule'] | null;
      plainly?: boolean;
      senderId?: number | null;
      basedOn: number;
    };
    SaveTagTriggersBody: {
      tagTriggers: components['schemas']['TagTrigger'][];
      was: components['schemas']['TagTrigger'][];
    };
    PreviewQuery: {
      supporterId?: number;
    };
    ChangeImageBody: {
      name: string;
      alt: string;
      folder: string;
      was: {
        name: string;
        alt: string;
        folder: string;
      };
    };
    MediaParams: {
      id: number;
      width: number;
    };
    TryAskBody: {
      ask: components['schemas']['AskRule'];
    };
    TemplatesQuery: {
      /** @default  */
      search: string;
      channel?: 'email' | 'text' | 'call' | 'post';
      /** @default false */
      archived: boolean;
    };
    MakeTemplateBody: {
      name: string;
      folder: string;
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      note: string;
      channel: 'email' | 'text' | 'call' | 'post';
      from?:
        | {
            starter: string;
          }
        | {
            messageId: number;
          }
        | {
            templateId: number;
          }
        | {
            subject: string;
            preheader: string;
            letter: components['schemas']['LetterDoc'] | null;
            text: string;
          };
    };
    SaveTemplateBody: {
      name: string;
      folder: string;
      purpose: 'news' | 'appeals' | 'volunteering' | 'service' | null;
      listId: number | null;
      note: string;
      subject: string;
      preheader: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
      locale?: string | null;
      ask?: components['schemas']['AskRule'] | null;
      plainly?: boolean;
      basedOn: number;
    };
    StandTemplateBody: {
      isTeam: boolean;
      archived: boolean;
      was: {
        isTeam: boolean;
        archived: boolean;
      };
    };
    GoOnBody: {
      do: 'ask' | 'withdraw' | 'agree' | 'back';
      /** @default  */
      note: string;
      version: number;
    };
    MakeWordNoteBody: {
      /** @default  */
      quote: string;
      /** @default null */
      answersId: number | null;
      body: string;
    };
    WordNoteParams: {
      id: number;
      noteId: number;
    };
    SettleWordNoteBody: {
      settled: boolean;
    };
    MakeAutomationBody: {
      name: string;
      cause: components['schemas']['Cause'];
    };
    SaveAutomationBody: {
      name: string;
      cause: components['schemas']['Cause'];
      again: boolean;
      stops: ('gave' | 'replied' | 'left')[];
      unless: components['schemas']['Rule'] | null;
      basedOn: number;
    };
    AddAutomationStepBody: {
      name: string;
      channel: 'email' | 'text';
      wait: components['schemas']['Wait'];
      from?:
        | {
            templateId: number;
          }
        | {
            starter: string;
          };
    };
    StepParams: {
      id: number;
      stepId: number;
    };
    ChangeAutomationStepBody: {
      wait: components['schemas']['Wait'];
      basedOn: number;
    };
    AutomationLookQuery: {
      days?: number;
    };
    SwitchOnBody: {
      basedOn: number;
      days: number;
      people: number;
    };
    OnAutomationBody: {
      basedOn: number;
    };
    VisitsQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      state: 'waiting' | 'held' | 'done' | 'ended';
    };
    SomeVisitsBody: {
      ids: number[];
    };
    HeldVisitsBody: {
      people: number;
    };
    MakeFeedBody: {
      name: string;
      sourceId: number;
    };
    SaveFeedBody: {
      name: string;
      plan: components['schemas']['FeedPlan'];
      basedOn: number;
    };
    FeedSampleQuery: {
      type: string;
      filter?: string;
    };
    TurnFeedBody: {
      basedOn: number;
    };
    RunFeedBody: {
      /** @default false */
      trial: boolean;
      /** @default false */
      anyway: boolean;
    };
    RunParams: {
      id: number;
      runId: number;
    };
    MakeFeedSourceBody: {
      name: string;
      kind: 'desk' | 'address';
      url: string;
      token: string;
    };
    SaveFeedSourceBody: {
      name: string;
      url: string;
      token?: string;
      basedOn: number;
    };
    FeedHookParams: {
      key: string;
    };
    SaveComparisonBody: {
      share: number;
      measure: 'clicked' | 'gave' | 'replied' | 'opened';
      hours: number;
      basedOn: number;
    };
    ChooseWordingBody: {
      wordingId: number;
    };
    SavePlanBody: {
      firstDay: string | null;
      goal: {
        kind: 'people' | 'gifts' | 'money';
        amount: number;
        by: string | null;
      } | null;
      endsFor: ('gave' | 'replied' | 'left')[];
      endsAt: string[];
      joinsFrom: number | null;
      basedOn: number;
    };
    AddStepBody: {
      day: number;
      minutes: number;
      ownTime: boolean;
      name: string;
      channel: 'email' | 'text' | 'call' | 'post';
      from?:
        | {
            templateId: number;
          }
        | {
            starter: string;
          };
    };
    ChangeStepBody: {
      day: number;
      minutes: number;
      ownTime: boolean;
      rule: components['schemas']['Rule'] | null;
      basedOn: number;
    };
    SetGoingBody: {
      looks: {
        messageId: number;
        digest: string;
      }[];
    };
    PathQuery: {
      supporterId: number;
    };
    SaveMailLimitsBody: {
      perHour: number | null;
      perDay: number | null;
      warmUp: {
        from: string;
        amounts: number[];
      } | null;
    };
    SaveTextNumberBody: {
      kind: 'long' | 'short' | 'toll-free' | 'name' | null;
      registration: 'none' | 'waiting' | 'registered' | null;
      perSecond: number | null;
    };
    ReadersQuery: {
      /** @default  */
      search: string;
    };
    SaveRecipientsBody: {
      from: components['schemas']['GroupRef'][];
      minus: components['schemas']['GroupRef'][];
      /** @default [] */
      chosen: number[];
      without: number[];
      apart?: boolean;
      basedOn: number;
    };
    AgreeToLookBody: {
      digest: string;
    };
    AheadQuery: {
      /** Format: date-time */
      at?: string;
      /** @default false */
      ownTime: boolean;
      spreadHours?: number;
    };
    SuppressedQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      verdict:
        | 'send'
        | 'fell-out'
        | 'no-address'
        | 'do-not-contact'
        | 'said-no'
        | 'on-hold'
        | 'asked'
        | 'no-permission'
        | 'paused'
        | 'had-enough'
        | 'shared-address';
    };
    SendTestBody: {
      /** @default null */
      asId: number | null;
      /** @default null */
      listId: number | null;
    };
    OwnTimesQuery: {
      /** Format: date-time */
      at: string;
    };
    SendMessageBody: {
      /**
       * Format: date-time
       * @default null
       */
      at: string | null;
      /** @default false */
      ownTime: boolean;
      /** @default null */
      spreadHours: number | null;
      /** @default null */
      keptShare: number | null;
      digest: string;
    };
    BeginToBody: {
      from?:
        | {
            templateId: number;
          }
        | {
            starter: string;
          };
      name: string;
      channel: 'email' | 'text' | 'post';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      to:
        | {
            ref: components['schemas']['GroupRef'];
          }
        | {
            group: components['schemas']['PeopleGroup'];
          }
        | {
            result: {
              messageId: number;
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
                | 'waiting'
                | 'kept'
                | 'suppressed';
            };
          };
    };
    PersonalQuery: {
      channel: 'email' | 'text';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
    };
    PersonalMessageBody: {
      channel: 'email' | 'text';
      purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      subject: string;
      letter: components['schemas']['LetterDoc'] | null;
      text: string;
      templateId?: number | null;
      answers?: {
        replyId: number;
        after: number | null;
      };
    };
    MakeLettersBody: {
      form: 'din-b' | 'us-10';
    };
    LetterFileParams: {
      id: number;
      fileId: number;
    };
    LetterPageQuery: {
      supporterId?: number;
      form?: 'din-b' | 'us-10';
    };
    PostedLettersBody: {
      on: string;
    };
    ThreadsQuery: {
      /**
       * @default open
       * @enum {string}
       */
      view: 'open' | 'mine' | 'aside' | 'done';
      /** @default  */
      q: string;
    };
    HandledBody: {
      handled: boolean;
    };
    PutAsideBody: {
      /** Format: date-time */
      until: string | null;
    };
    AssignThreadBody: {
      to: number | null;
    };
    ReplyFileParams: {
      id: number;
      fileId: number;
    };
    ResultPeopleQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
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
        | 'waiting'
        | 'kept'
        | 'suppressed';
    };
    SettleBody: {
      as: 'sent' | 'again';
    };
    TokenParams: {
      token: string;
    };
    LeaveBody: {
      /**
       * @default this
       * @enum {string}
       */
      what: 'this' | 'all' | 'back';
      'List-Unsubscribe'?: 'One-Click';
    };
    MakeFormBody: {
      name: string;
      /** @default null */
      listId: number | null;
    };
    SaveFormBody: {
      name: string;
      slug: string;
      definition: components['schemas']['FormDefinition'];
      version: number;
    };
    OpenFormSchemaBody: {
      open: boolean;
    };
    SlugParams: {
      slug: string;
    };
    PageQuery: Record<string, never>;
    PostedFormBody: Record<string, never>;
    PostedPreferencesBody: Record<string, never>;
    AddressQuery: {
      address: string;
    };
    TextHookBody:
      | {
          type: 'inbound';
          id: string;
          from: string;
          to: string;
          text: string;
          /** Format: date-time */
          at?: string;
        }
      | {
          type: 'receipt';
          id: string;
          key: string;
          status: 'delivered' | 'failed';
          reason?: string;
          code?: string;
        };
    TextAnswersBody: {
      stop: string;
      help: string;
      start: string;
      was: {
        stop: string;
        help: string;
        start: string;
      };
    };
    SettleTaskBody: {
      outcome: 'meant' | 'not-meant' | 'done' | 'declined';
    };
    SaveOrganizationBody: {
      name: string;
      legalName: string;
      postalAddress: string;
      country: string;
      timeZone: string;
      locale: string;
      currency: string;
      fiscalMonth: number;
      languages: ('en' | 'es' | 'fr' | 'de')[];
      fromEmail: string;
      bounceDomain: string;
      textFrom: string;
      /**
       * Format: float
       * @default null
       */
      textPrice: number | null;
      /** @default  */
      givingPage: string;
      /** @default  */
      linkUrl: string;
      basedOn: number;
    };
    SaveStyleBody: {
      style: components['schemas']['HouseStyle'];
      was: {
        logo: {
          src: string;
          width: number;
        } | null;
        main: string;
        accent: string;
        face: 'serif' | 'plain' | 'round' | 'narrow';
        width: number;
        footer: {
          [key: string]: string;
        };
      };
    };
    MakeChapterBody: {
      name: string;
      postalAddress: string;
      /** @default  */
      places: string;
    };
    SaveChapterBody: {
      name: string;
      postalAddress: string;
      /** @default  */
      places: string;
      was: {
        name: string;
        postalAddress: string;
        /** @default  */
        places: string;
      };
    };
    InviteBody: {
      email: string;
      name: string;
      role: 'viewer' | 'writer' | 'organizer' | 'owner';
      chapterIds: number[] | null;
    };
    ChangeTeammateBody: {
      role: 'viewer' | 'writer' | 'organizer' | 'owner';
      chapterIds: number[] | null;
      was: {
        role: 'viewer' | 'writer' | 'organizer' | 'owner';
        chapterIds: number[] | null;
      };
    };
    TakeOutTeammateBody: {
      handTo: number;
    };
    BeginHouseBody: {
      word: string;
      organization: {
        name: string;
        legalName: string;
        postalAddress: string;
        country: string;
        timeZone: string;
        locale: string;
        currency: string;
      };
      chapter: string;
      name: string;
      email: string;
      password: string;
    };
    WeighRulesBody: {
      rules: components['schemas']['HouseRules'];
    };
    SaveRulesBody: {
      rules: components['schemas']['HouseRules'];
      basedOn: number;
    };
    SettleRulesBody: {
      agrees: boolean;
    };
    DncQuery: {
      after?: string;
      /** @default 100 */
      limit: number;
      search?: string;
    };
    AddDncBody: {
      lines: string;
      /** @default  */
      note: string;
    };
  };
  responses: never;
  parameters: never;
  requestBodies: never;
  headers: never;
  pathItems: never;
}
export type Colleague = components['schemas']['Colleague'];
export type ParseOptions = components['schemas']['ParseOptions'];
export type ColumnChoice = components['schemas']['ColumnChoice'];
export type Mend = components['schemas']['Mend'];
export type Scope = components['schemas']['Scope'];
export type IntakePlan = components['schemas']['IntakePlan'];
export type Explanation = components['schemas']['Explanation'];
export type FieldValue = components['schemas']['FieldValue'];
export type Workbook = components['schemas']['Workbook'];
export type FileFindings = components['schemas']['FileFindings'];
export type Guess = components['schemas']['Guess'];
export type HourSpan = components['schemas']['HourSpan'];
export type Hours = components['schemas']['Hours'];
export type MergeName = components['schemas']['MergeName'];
export type Region = components['schemas']['Region'];
export type AutomationLook = components['schemas']['AutomationLook'];
export type Wait = components['schemas']['Wait'];
export type AutomationStep = components['schemas']['AutomationStep'];
export type AutomationView = components['schemas']['AutomationView'];
export type Cause = components['schemas']['Cause'];
export type Rule = components['schemas']['Rule'];
export type AutomationWhole = components['schemas']['AutomationWhole'];
export type VisitRow = components['schemas']['VisitRow'];
export type BulkView = components['schemas']['BulkView'];
export type FinderHit = components['schemas']['FinderHit'];
export type PeopleView = components['schemas']['PeopleView'];
export type CallListView = components['schemas']['CallListView'];
export type CallHours = components['schemas']['CallHours'];
export type CallRow = components['schemas']['CallRow'];
export type StepCalls = components['schemas']['StepCalls'];
export type ComparisonView = components['schemas']['ComparisonView'];
export type ThreadLine = components['schemas']['ThreadLine'];
export type ThreadItem = components['schemas']['ThreadItem'];
export type ThreadView = components['schemas']['ThreadView'];
export type ThreadsView = components['schemas']['ThreadsView'];
export type StepExpected = components['schemas']['StepExpected'];
export type CampaignExpected = components['schemas']['CampaignExpected'];
export type CampaignGoal = components['schemas']['CampaignGoal'];
export type MessageFault = components['schemas']['MessageFault'];
export type LastLook = components['schemas']['LastLook'];
export type CampaignLook = components['schemas']['CampaignLook'];
export type StepView = components['schemas']['StepView'];
export type CampaignPlan = components['schemas']['CampaignPlan'];
export type CampaignView = components['schemas']['CampaignView'];
export type PathStep = components['schemas']['PathStep'];
export type RosterRow = components['schemas']['RosterRow'];
export type AddressHolder = components['schemas']['AddressHolder'];
export type FeedNotice = components['schemas']['FeedNotice'];
export type FeedOffer = components['schemas']['FeedOffer'];
export type FeedRows = components['schemas']['FeedRows'];
export type FeedRunView = components['schemas']['FeedRunView'];
export type FeedSourceView = components['schemas']['FeedSourceView'];
export type FeedView = components['schemas']['FeedView'];
export type Every = components['schemas']['Every'];
export type FeedPlan = components['schemas']['FeedPlan'];
export type FeedWhole = components['schemas']['FeedWhole'];
export type FormCounts = components['schemas']['FormCounts'];
export type FormDefinition = components['schemas']['FormDefinition'];
export type FormView = components['schemas']['FormView'];
export type ListView = components['schemas']['ListView'];
export type TagView = components['schemas']['TagView'];
export type BatchPreview = components['schemas']['BatchPreview'];
export type LikelyDouble = components['schemas']['LikelyDouble'];
export type RowWrites = components['schemas']['RowWrites'];
export type BatchRowView = components['schemas']['BatchRowView'];
export type DraftPlan = components['schemas']['DraftPlan'];
export type IntakeDraft = components['schemas']['IntakeDraft'];
export type BatchWill = components['schemas']['BatchWill'];
export type BatchView = components['schemas']['BatchView'];
export type DoubleView = components['schemas']['DoubleView'];
export type JobView = components['schemas']['JobView'];
export type LayoutView = components['schemas']['LayoutView'];
export type AskRule = components['schemas']['AskRule'];
export type AskedPerson = components['schemas']['AskedPerson'];
export type InlineMark = components['schemas']['InlineMark'];
export type Inline = components['schemas']['Inline'];
export type ListItem = components['schemas']['ListItem'];
export type ColumnBlock = components['schemas']['ColumnBlock'];
export type PassageBlock = components['schemas']['PassageBlock'];
export type Block = components['schemas']['Block'];
export type HouseStyle = components['schemas']['HouseStyle'];
export type LetterDoc = components['schemas']['LetterDoc'];
export type LettersView = components['schemas']['LettersView'];
export type AheadView = components['schemas']['AheadView'];
export type CheckedWords = components['schemas']['CheckedWords'];
export type ImageView = components['schemas']['ImageView'];
export type MessageResults = components['schemas']['MessageResults'];
export type TemplateOrigin = components['schemas']['TemplateOrigin'];
export type GoView = components['schemas']['GoView'];
export type GroupRef = components['schemas']['GroupRef'];
export type Recipients = components['schemas']['Recipients'];
export type TagTrigger = components['schemas']['TagTrigger'];
export type MessageView = components['schemas']['MessageView'];
export type Overlap = components['schemas']['Overlap'];
export type OwnTimesView = components['schemas']['OwnTimesView'];
export type Preview = components['schemas']['Preview'];
export type ProofsView = components['schemas']['ProofsView'];
export type ReaderView = components['schemas']['ReaderView'];
export type ResultPerson = components['schemas']['ResultPerson'];
export type SavedWords = components['schemas']['SavedWords'];
export type TextAnswers = components['schemas']['TextAnswers'];
export type DncAdded = components['schemas']['DncAdded'];
export type DncRow = components['schemas']['DncRow'];
export type RuleEffect = components['schemas']['RuleEffect'];
export type HouseRules = components['schemas']['HouseRules'];
export type RulesView = components['schemas']['RulesView'];
export type RulesWeighed = components['schemas']['RulesWeighed'];
export type ProblemDetails = components['schemas']['ProblemDetails'];
export type HouseholdView = components['schemas']['HouseholdView'];
export type MergeLine = components['schemas']['MergeLine'];
export type MergePreview = components['schemas']['MergePreview'];
export type NoteView = components['schemas']['NoteView'];
export type PersonalVerdict = components['schemas']['PersonalVerdict'];
export type CountedStep = components['schemas']['CountedStep'];
export type SegmentCount = components['schemas']['SegmentCount'];
export type SegmentSize = components['schemas']['SegmentSize'];
export type SegmentVersion = components['schemas']['SegmentVersion'];
export type SegmentView = components['schemas']['SegmentView'];
export type CheckedRecord = components['schemas']['CheckedRecord'];
export type MailLimits = components['schemas']['MailLimits'];
export type SenderView = components['schemas']['SenderView'];
export type ChoiceUse = components['schemas']['ChoiceUse'];
export type ConsentStatusView = components['schemas']['ConsentStatusView'];
export type ContactPointView = components['schemas']['ContactPointView'];
export type Conversion = components['schemas']['Conversion'];
export type DeletionNotice = components['schemas']['DeletionNotice'];
export type FieldAdminView = components['schemas']['FieldAdminView'];
export type FieldDeletion = components['schemas']['FieldDeletion'];
export type FieldView = components['schemas']['FieldView'];
export type EntryView = components['schemas']['EntryView'];
export type MembershipView = components['schemas']['MembershipView'];
export type RecordView = components['schemas']['RecordView'];
export type SupporterRow = components['schemas']['SupporterRow'];
export type TagUse = components['schemas']['TagUse'];
export type TimelineItem = components['schemas']['TimelineItem'];
export type LinkView = components['schemas']['LinkView'];
export type OrganizationView = components['schemas']['OrganizationView'];
export type Profile = components['schemas']['Profile'];
export type SessionLine = components['schemas']['SessionLine'];
export type SessionView = components['schemas']['SessionView'];
export type TeammateView = components['schemas']['TeammateView'];
export type WaitingFor = components['schemas']['WaitingFor'];
export type Words = components['schemas']['Words'];
export type StarterView = components['schemas']['StarterView'];
export type TemplateLine = components['schemas']['TemplateLine'];
export type TemplateView = components['schemas']['TemplateView'];
export type TemplateUse = components['schemas']['TemplateUse'];
export type TemplateUses = components['schemas']['TemplateUses'];
export type WordVersion = components['schemas']['WordVersion'];
export type DoneView = components['schemas']['DoneView'];
export type LeavingMessage = components['schemas']['LeavingMessage'];
export type StopTask = components['schemas']['StopTask'];
export type WaitingBatch = components['schemas']['WaitingBatch'];
export type TodayView = components['schemas']['TodayView'];
export type WeekView = components['schemas']['WeekView'];
export type WordNoteView = components['schemas']['WordNoteView'];
export type SignInBody = components['schemas']['SignInBody'];
export type ChooseChapterBody = components['schemas']['ChooseChapterBody'];
export type SaveProfileBody = components['schemas']['SaveProfileBody'];
export type ChangePasswordBody = components['schemas']['ChangePasswordBody'];
export type IdParams = components['schemas']['IdParams'];
export type ForgottenBody = components['schemas']['ForgottenBody'];
export type LinkParams = components['schemas']['LinkParams'];
export type UseLinkBody = components['schemas']['UseLinkBody'];
export type SupporterQuery = components['schemas']['SupporterQuery'];
export type RenameSupporterBody = components['schemas']['RenameSupporterBody'];
export type FieldParams = components['schemas']['FieldParams'];
export type SetFieldBody = components['schemas']['SetFieldBody'];
export type TagParams = components['schemas']['TagParams'];
export type ListParams = components['schemas']['ListParams'];
export type AddEntryBody = components['schemas']['AddEntryBody'];
export type ObjectionBody = components['schemas']['ObjectionBody'];
export type EvidenceParams = components['schemas']['EvidenceParams'];
export type SetPlaceBody = components['schemas']['SetPlaceBody'];
export type AddGiftBody = components['schemas']['AddGiftBody'];
export type MakeFieldBody = components['schemas']['MakeFieldBody'];
export type GroupsQuery = components['schemas']['GroupsQuery'];
export type NewPostal = components['schemas']['NewPostal'];
export type AddContactBody = components['schemas']['AddContactBody'];
export type PointParams = components['schemas']['PointParams'];
export type ChangeContactBody = components['schemas']['ChangeContactBody'];
export type TimelineQuery = components['schemas']['TimelineQuery'];
export type UndoParams = components['schemas']['UndoParams'];
export type NoteBody = components['schemas']['NoteBody'];
export type NoteParams = components['schemas']['NoteParams'];
export type ChangeNoteBody = components['schemas']['ChangeNoteBody'];
export type JoinHouseholdBody = components['schemas']['JoinHouseholdBody'];
export type HouseholdGreetingBody = components['schemas']['HouseholdGreetingBody'];
export type MergeQuery = components['schemas']['MergeQuery'];
export type MergeRecordsBody = components['schemas']['MergeRecordsBody'];
export type UnmergeParams = components['schemas']['UnmergeParams'];
export type PersonExportQuery = components['schemas']['PersonExportQuery'];
export type BatchesQuery = components['schemas']['BatchesQuery'];
export type SheetFormParams = components['schemas']['SheetFormParams'];
export type ReadAgainBody = components['schemas']['ReadAgainBody'];
export type KeepDraftBody = components['schemas']['KeepDraftBody'];
export type IntakePlanBody = components['schemas']['IntakePlanBody'];
export type BatchRowsQuery = components['schemas']['BatchRowsQuery'];
export type BatchRowParams = components['schemas']['BatchRowParams'];
export type DecideRowsBody = components['schemas']['DecideRowsBody'];
export type BatchSheetParams = components['schemas']['BatchSheetParams'];
export type ChangeLayoutBody = components['schemas']['ChangeLayoutBody'];
export type HouseFilesBody = components['schemas']['HouseFilesBody'];
export type MakeCampaignBody = components['schemas']['MakeCampaignBody'];
export type ChangeCampaignBody = components['schemas']['ChangeCampaignBody'];
export type RosterQuery = components['schemas']['RosterQuery'];
export type RosterGroup = components['schemas']['RosterGroup'];
export type RosterPutBody = components['schemas']['RosterPutBody'];
export type RosterOffBody = components['schemas']['RosterOffBody'];
export type MakeTagBody = components['schemas']['MakeTagBody'];
export type ChangeTagBody = components['schemas']['ChangeTagBody'];
export type JoinTagBody = components['schemas']['JoinTagBody'];
export type MakeListBody = components['schemas']['MakeListBody'];
export type OrderListsBody = components['schemas']['OrderListsBody'];
export type MoveListsBody = components['schemas']['MoveListsBody'];
export type ChangeListBody = components['schemas']['ChangeListBody'];
export type SaveSegmentBody = components['schemas']['SaveSegmentBody'];
export type ChangeSegmentBody = components['schemas']['ChangeSegmentBody'];
export type CountSegmentBody = components['schemas']['CountSegmentBody'];
export type ListPeopleBody = components['schemas']['ListPeopleBody'];
export type SnapshotSegmentBody = components['schemas']['SnapshotSegmentBody'];
export type ExplainParams = components['schemas']['ExplainParams'];
export type FinderQuery = components['schemas']['FinderQuery'];
export type SavePeopleViewBody = components['schemas']['SavePeopleViewBody'];
export type PeopleGroup = components['schemas']['PeopleGroup'];
export type PrintAct = components['schemas']['PrintAct'];
export type BulkAct = components['schemas']['BulkAct'];
export type BeginBulkBody = components['schemas']['BeginBulkBody'];
export type MakeCallListBody = components['schemas']['MakeCallListBody'];
export type CallPeopleQuery = components['schemas']['CallPeopleQuery'];
export type CallParams = components['schemas']['CallParams'];
export type AnswerCallBody = components['schemas']['AnswerCallBody'];
export type OrderFieldsBody = components['schemas']['OrderFieldsBody'];
export type ChangeField = components['schemas']['ChangeField'];
export type ChangeFieldBody = components['schemas']['ChangeFieldBody'];
export type FieldTypeQuery = components['schemas']['FieldTypeQuery'];
export type FieldTypeBody = components['schemas']['FieldTypeBody'];
export type RenameChoiceBody = components['schemas']['RenameChoiceBody'];
export type RegionsQuery = components['schemas']['RegionsQuery'];
export type MakeMessageBody = components['schemas']['MakeMessageBody'];
export type SaveMessageBody = components['schemas']['SaveMessageBody'];
export type SaveTagTriggersBody = components['schemas']['SaveTagTriggersBody'];
export type PreviewQuery = components['schemas']['PreviewQuery'];
export type ChangeImageBody = components['schemas']['ChangeImageBody'];
export type MediaParams = components['schemas']['MediaParams'];
export type TryAskBody = components['schemas']['TryAskBody'];
export type TemplatesQuery = components['schemas']['TemplatesQuery'];
export type MakeTemplateBody = components['schemas']['MakeTemplateBody'];
export type SaveTemplateBody = components['schemas']['SaveTemplateBody'];
export type StandTemplateBody = components['schemas']['StandTemplateBody'];
export type GoOnBody = components['schemas']['GoOnBody'];
export type MakeWordNoteBody = components['schemas']['MakeWordNoteBody'];
export type WordNoteParams = components['schemas']['WordNoteParams'];
export type SettleWordNoteBody = components['schemas']['SettleWordNoteBody'];
export type MakeAutomationBody = components['schemas']['MakeAutomationBody'];
export type SaveAutomationBody = components['schemas']['SaveAutomationBody'];
export type AddAutomationStepBody = components['schemas']['AddAutomationStepBody'];
export type StepParams = components['schemas']['StepParams'];
export type ChangeAutomationStepBody = components['schemas']['ChangeAutomationStepBody'];
export type AutomationLookQuery = components['schemas']['AutomationLookQuery'];
export type SwitchOnBody = components['schemas']['SwitchOnBody'];
export type OnAutomationBody = components['schemas']['OnAutomationBody'];
export type VisitsQuery = components['schemas']['VisitsQuery'];
export type SomeVisitsBody = components['schemas']['SomeVisitsBody'];
export type HeldVisitsBody = components['schemas']['HeldVisitsBody'];
export type MakeFeedBody = components['schemas']['MakeFeedBody'];
export type SaveFeedBody = components['schemas']['SaveFeedBody'];
export type FeedSampleQuery = components['schemas']['FeedSampleQuery'];
export type TurnFeedBody = components['schemas']['TurnFeedBody'];
export type RunFeedBody = components['schemas']['RunFeedBody'];
export type RunParams = components['schemas']['RunParams'];
export type MakeFeedSourceBody = components['schemas']['MakeFeedSourceBody'];
export type SaveFeedSourceBody = components['schemas']['SaveFeedSourceBody'];
export type FeedHookParams = components['schemas']['FeedHookParams'];
export type SaveComparisonBody = components['schemas']['SaveComparisonBody'];
export type ChooseWordingBody = components['schemas']['ChooseWordingBody'];
export type SavePlanBody = components['schemas']['SavePlanBody'];
export type AddStepBody = components['schemas']['AddStepBody'];
export type ChangeStepBody = components['schemas']['ChangeStepBody'];
export type SetGoingBody = components['schemas']['SetGoingBody'];
export type PathQuery = components['schemas']['PathQuery'];
export type SaveMailLimitsBody = components['schemas']['SaveMailLimitsBody'];
export type SaveTextNumberBody = components['schemas']['SaveTextNumberBody'];
export type ReadersQuery = components['schemas']['ReadersQuery'];
export type SaveRecipientsBody = components['schemas']['SaveRecipientsBody'];
export type AgreeToLookBody = components['schemas']['AgreeToLookBody'];
export type AheadQuery = components['schemas']['AheadQuery'];
export type SuppressedQuery = components['schemas']['SuppressedQuery'];
export type SendTestBody = components['schemas']['SendTestBody'];
export type OwnTimesQuery = components['schemas']['OwnTimesQuery'];
export type SendMessageBody = components['schemas']['SendMessageBody'];
export type BeginToBody = components['schemas']['BeginToBody'];
export type PersonalQuery = components['schemas']['PersonalQuery'];
export type PersonalMessageBody = components['schemas']['PersonalMessageBody'];
export type MakeLettersBody = components['schemas']['MakeLettersBody'];
export type LetterFileParams = components['schemas']['LetterFileParams'];
export type LetterPageQuery = components['schemas']['LetterPageQuery'];
export type PostedLettersBody = components['schemas']['PostedLettersBody'];
export type ThreadsQuery = components['schemas']['ThreadsQuery'];
export type HandledBody = components['schemas']['HandledBody'];
export type PutAsideBody = components['schemas']['PutAsideBody'];
export type AssignThreadBody = components['schemas']['AssignThreadBody'];
export type ReplyFileParams = components['schemas']['ReplyFileParams'];
export type ResultPeopleQuery = components['schemas']['ResultPeopleQuery'];
export type SettleBody = components['schemas']['SettleBody'];
export type TokenParams = components['schemas']['TokenParams'];
export type LeaveBody = components['schemas']['LeaveBody'];
export type MakeFormBody = components['schemas']['MakeFormBody'];
export type SaveFormBody = components['schemas']['SaveFormBody'];
export type OpenFormSchemaBody = components['schemas']['OpenFormSchemaBody'];
export type SlugParams = components['schemas']['SlugParams'];
export type PageQuery = components['schemas']['PageQuery'];
export type PostedFormBody = components['schemas']['PostedFormBody'];
export type PostedPreferencesBody = components['schemas']['PostedPreferencesBody'];
export type AddressQuery = components['schemas']['AddressQuery'];
export type TextHookBody = components['schemas']['TextHookBody'];
export type TextAnswersBody = components['schemas']['TextAnswersBody'];
export type SettleTaskBody = components['schemas']['SettleTaskBody'];
export type SaveOrganizationBody = components['schemas']['SaveOrganizationBody'];
export type SaveStyleBody = components['schemas']['SaveStyleBody'];
export type MakeChapterBody = components['schemas']['MakeChapterBody'];
export type SaveChapterBody = components['schemas']['SaveChapterBody'];
export type InviteBody = components['schemas']['InviteBody'];
export type ChangeTeammateBody = components['schemas']['ChangeTeammateBody'];
export type TakeOutTeammateBody = components['schemas']['TakeOutTeammateBody'];
export type BeginHouseBody = components['schemas']['BeginHouseBody'];
export type WeighRulesBody = components['schemas']['WeighRulesBody'];
export type SaveRulesBody = components['schemas']['SaveRulesBody'];
export type SettleRulesBody = components['schemas']['SettleRulesBody'];
export type DncQuery = components['schemas']['DncQuery'];
export type AddDncBody = components['schemas']['AddDncBody'];
export type $defs = Record<string, never>;
export interface operations {
  'HealthController.live': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            status: string;
          };
        };
      };
    };
  };
  'HealthController.ready': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            status: string;
          };
        };
      };
    };
  };
  'HealthController.metrics': {
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'TeamController.view': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SessionView'];
        };
      };
    };
  };
  'TeamController.signIn': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SignInBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.signOut': {
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.teammates': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Colleague'][];
        };
      };
    };
  };
  'TeamController.chooseChapter': {
    requestBody: {
      content: {
        'application/json': components['schemas']['ChooseChapterBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.profile': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Profile'];
        };
      };
    };
  };
  'TeamController.saveProfile': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveProfileBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.changePassword': {
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangePasswordBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.sessions': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SessionLine'][];
        };
      };
    };
  };
  'TeamController.endOthers': {
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.endSession': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.forgotten': {
    requestBody: {
      content: {
        'application/json': components['schemas']['ForgottenBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TeamController.look': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['LinkView'];
        };
      };
    };
  };
  'TeamController.use': {
    parameters: {
      path: {
        token: string;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['UseLinkBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.page': {
    parameters: {
      query?: {
        after?: string;
        limit?: number;
        search?: string;
        tag?: number;
        list?: number;
        batch?: number;
        hold?: boolean;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['SupporterRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'WholeRecordController.record': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['RecordView'];
        };
      };
    };
  };
  'SupportersController.erase': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.rename': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['RenameSupporterBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.setField': {
    parameters: {
      path: {
        id: number;
        fieldId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SetFieldBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.putTag': {
    parameters: {
      path: {
        id: number;
        tagId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.dropTag': {
    parameters: {
      path: {
        id: number;
        tagId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.putList': {
    parameters: {
      path: {
        id: number;
        listId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.dropList': {
    parameters: {
      path: {
        id: number;
        listId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.addEntry': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AddEntryBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.object': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ObjectionBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.addEvidence': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'SupportersController.evidence': {
    parameters: {
      path: {
        id: number;
        evidenceId: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'SupportersController.setPlace': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SetPlaceBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.addGift': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AddGiftBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SupportersController.allFields': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FieldView'][];
        };
      };
    };
  };
  'SupportersController.makeField': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeFieldBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'SupportersController.tags': {
    parameters: {
      query?: {
        counted?: boolean;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TagView'][];
        };
      };
    };
  };
  'TagsController.makeTag': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeTagBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'SupportersController.lists': {
    parameters: {
      query?: {
        counted?: boolean;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ListView'][];
        };
      };
    };
  };
  'ListsController.makeList': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeListBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'ContactPointsController.add': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AddContactBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ContactPointsController.change': {
    parameters: {
      path: {
        id: number;
        pointId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeContactBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ContactPointsController.drop': {
    parameters: {
      path: {
        id: number;
        pointId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ContactPointsController.putFirst': {
    parameters: {
      path: {
        id: number;
        pointId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ContactPointsController.release': {
    parameters: {
      path: {
        id: number;
        pointId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.timeline': {
    parameters: {
      query?: {
        kinds?: string;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TimelineItem'][];
        };
      };
    };
  };
  'RecordController.undo': {
    parameters: {
      path: {
        id: number;
        auditId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.addNote': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['NoteBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'RecordController.changeNote': {
    parameters: {
      path: {
        id: number;
        noteId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeNoteBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.removeNote': {
    parameters: {
      path: {
        id: number;
        noteId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.join': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['JoinHouseholdBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.leave': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.greet': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['HouseholdGreetingBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.preview': {
    parameters: {
      query: {
        withId: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['MergePreview'];
        };
      };
    };
  };
  'RecordController.merge': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['MergeRecordsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.unmerge': {
    parameters: {
      path: {
        id: number;
        mergingId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RecordController.everything': {
    parameters: {
      query?: {
        as?: 'json' | 'csv' | 'vcf';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'IntakeController.list': {
    parameters: {
      query?: {
        state?: 'open' | 'done' | 'all';
        by?: number;
        from?: string;
        to?: string;
        source?: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['BatchView'][];
        };
      };
    };
  };
  'IntakeController.take': {
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'IntakeController.prepared': {
    parameters: {
      path: {
        form: 'csv' | 'xlsx';
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'IntakeController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['BatchView'];
        };
      };
    };
  };
  'IntakeController.discard': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'IntakeController.preview': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['BatchPreview'];
        };
      };
    };
  };
  'IntakeController.text': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'IntakeController.readAgain': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ReadAgainBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'IntakeController.keep': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['KeepDraftBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'IntakeController.plan': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['IntakePlanBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'IntakeController.bringIn': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'IntakeController.stop': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'IntakeController.seen': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'IntakeController.takeOutNotice': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            staying: number;
          };
        };
      };
    };
  };
  'IntakeController.takeOut': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'IntakeController.rows': {
    parameters: {
      query?: {
        after?: string;
        limit?: number;
        verdict?:
          | 'new'
          | 'shares'
          | 'update'
          | 'same'
          | 'here'
          | 'no'
          | 'hold'
          | 'gift'
          | 'doubled'
          | 'look'
          | 'skipped'
          | 'aside'
          | 'failed';
        why?: string;
        only?:
          | 'faults'
          | 'hints'
          | 'strangers'
          | 'email'
          | 'text'
          | 'refusing'
          | 'groups'
          | 'changes'
          | 'saidNo'
          | 'doNotContact'
          | 'onHold'
          | 'alreadyYes';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['BatchRowView'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'IntakeController.sideBySide': {
    parameters: {
      path: {
        id: number;
        row: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DoubleView'];
        };
      };
    };
  };
  'IntakeController.decide': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['DecideRowsBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: number;
          };
        };
      };
    };
  };
  'IntakeController.undecide': {
    parameters: {
      path: {
        id: number;
        row: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'IntakeController.toMend': {
    parameters: {
      path: {
        id: number;
        form: 'csv' | 'xlsx';
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'IntakeController.came': {
    parameters: {
      path: {
        id: number;
        form: 'csv' | 'xlsx';
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'LayoutsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['LayoutView'][];
        };
      };
    };
  };
  'LayoutsController.change': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeLayoutBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'LayoutsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'RetentionController.show': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            days: number;
          };
        };
      };
    };
  };
  'RetentionController.change': {
    requestBody: {
      content: {
        'application/json': components['schemas']['HouseFilesBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'CampaignsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CampaignView'][];
        };
      };
    };
  };
  'CampaignsController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeCampaignBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'CampaignsController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CampaignView'];
        };
      };
    };
  };
  'CampaignsController.change': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeCampaignBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'CampaignsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'CampaignsController.roster': {
    parameters: {
      query?: {
        after?: string;
        limit?: number;
        stage?: string;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['RosterRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'CampaignsController.put': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['RosterPutBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'CampaignsController.takeOff': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['RosterOffBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'TagsController.changeTag': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeTagBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TagsController.removeTag': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TagsController.tagUse': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TagUse'][];
        };
      };
    };
  };
  'TagsController.joinTag': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['JoinTagBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'TagsController.tagDeletion': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DeletionNotice'];
        };
      };
    };
  };
  'ListsController.orderLists': {
    requestBody: {
      content: {
        'application/json': components['schemas']['OrderListsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ListsController.moveLists': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MoveListsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ListsController.changeList': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeListBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ListsController.removeList': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ListsController.listDeletion': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DeletionNotice'];
        };
      };
    };
  };
  'SegmentsController.allSegments': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SegmentView'][];
        };
      };
    };
  };
  'SegmentsController.makeSegment': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveSegmentBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
            version: number;
          };
        };
      };
    };
  };
  'SegmentsController.changeSegment': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeSegmentBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            id: number;
            version: number;
          };
        };
      };
    };
  };
  'SegmentsController.removeSegment': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SegmentsController.count': {
    requestBody: {
      content: {
        'application/json': components['schemas']['CountSegmentBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SegmentCount'];
        };
      };
    };
  };
  'SegmentsController.people': {
    requestBody: {
      content: {
        'application/json': components['schemas']['ListPeopleBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['SupporterRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'SegmentsController.versions': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SegmentVersion'][];
        };
      };
    };
  };
  'SegmentsController.sizes': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SegmentSize'][];
        };
      };
    };
  };
  'SegmentsController.snapshot': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SnapshotSegmentBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {
        content: {
          'application/json': {
            listId: number;
            bulkId: number;
            people: number;
          };
        };
      };
    };
  };
  'SegmentsController.why': {
    parameters: {
      path: {
        id: number;
        supporterId: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            name: string;
            words: string;
            holds: boolean;
            inner: components['schemas']['Explanation'][];
          };
        };
      };
    };
  };
  'FinderController.find': {
    parameters: {
      query: {
        text: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FinderHit'][];
        };
      };
    };
  };
  'FinderController.views': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['PeopleView'][];
        };
      };
    };
  };
  'FinderController.keepView': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SavePeopleViewBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FinderController.forgetView': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'BulkController.recent': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['BulkView'][];
        };
      };
    };
  };
  'BulkController.begin': {
    requestBody: {
      content: {
        'application/json': components['schemas']['BeginBulkBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {
        content: {
          'application/json': {
            id: number;
            people: number;
          };
        };
      };
    };
  };
  'BulkController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['BulkView'];
        };
      };
    };
  };
  'BulkController.stop': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'BulkController.undo': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'BulkController.file': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'CallsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CallListView'][];
        };
      };
    };
  };
  'CallsController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeCallListBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'CallsController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CallListView'];
        };
      };
    };
  };
  'CallsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'CallsController.people': {
    parameters: {
      query?: {
        after?: number;
        limit?: number;
        who?: 'all' | 'may' | 'open' | 'again';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['CallRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'CallsController.answer': {
    parameters: {
      path: {
        id: number;
        position: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AnswerCallBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CallRow'];
        };
      };
    };
  };
  'StepCallsController.view': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['StepCalls'];
        };
      };
    };
  };
  'StepCallsController.over': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FieldsController.choices': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ChoiceUse'][];
        };
      };
    };
  };
  'FieldsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FieldAdminView'][];
        };
      };
    };
  };
  'FieldsController.order': {
    requestBody: {
      content: {
        'application/json': components['schemas']['OrderFieldsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FieldsController.change': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeFieldBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FieldsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            values: number;
          };
        };
      };
    };
  };
  'FieldsController.conversion': {
    parameters: {
      query: {
        type:
          | 'text'
          | 'longtext'
          | 'number'
          | 'money'
          | 'date'
          | 'datetime'
          | 'birthday'
          | 'yesno'
          | 'choice'
          | 'choices'
          | 'country'
          | 'region'
          | 'place'
          | 'link'
          | 'file';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Conversion'];
        };
      };
    };
  };
  'FieldsController.setType': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['FieldTypeBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FieldsController.renameChoice': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['RenameChoiceBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'FieldsController.deletion': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FieldDeletion'];
        };
      };
    };
  };
  'FieldFilesController.read': {
    parameters: {
      path: {
        id: number;
        fieldId: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'FieldFilesController.put': {
    parameters: {
      path: {
        id: number;
        fieldId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FieldFilesController.regions': {
    parameters: {
      query: {
        country: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Region'][];
        };
      };
    };
  };
  'MessagesController.list': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['MessageView'][];
        };
      };
    };
  };
  'MessagesController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeMessageBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'MessagesController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['MessageView'];
        };
      };
    };
  };
  'MessagesController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveMessageBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SavedWords'];
        };
      };
    };
  };
  'MessagesController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'MessagesController.tag': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveTagTriggersBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'MessagesController.copy': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'MessagesController.faults': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CheckedWords'];
        };
      };
    };
  };
  'MessagesController.preview': {
    parameters: {
      query?: {
        supporterId?: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Preview'];
        };
      };
    };
  };
  'MessagesController.mergeFields': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['MergeName'][];
        };
      };
    };
  };
  'MessagesController.pictures': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ImageView'][];
        };
      };
    };
  };
  'MessagesController.addPicture': {
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'MessagesController.changePicture': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeImageBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'MessagesController.removePicture': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'MessagesController.media': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'MessagesController.sized': {
    parameters: {
      path: {
        id: number;
        width: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'OwnHtmlController.bringIn': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['LetterDoc'];
        };
      };
    };
  };
  'TemplatesController.askAmounts': {
    requestBody: {
      content: {
        'application/json': components['schemas']['TryAskBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AskedPerson'][];
        };
      };
    };
  };
  'TemplatesController.starters': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['StarterView'][];
        };
      };
    };
  };
  'TemplatesController.find': {
    parameters: {
      query?: {
        search?: string;
        channel?: 'email' | 'text' | 'call' | 'post';
        archived?: boolean;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TemplateLine'][];
        };
      };
    };
  };
  'TemplatesController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeTemplateBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'TemplatesController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TemplateView'];
        };
      };
    };
  };
  'TemplatesController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveTemplateBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SavedWords'];
        };
      };
    };
  };
  'TemplatesController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TemplatesController.stand': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['StandTemplateBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TemplatesController.uses': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TemplateUses'];
        };
      };
    };
  };
  'TemplatesController.versions': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['WordVersion'][];
        };
      };
    };
  };
  'TemplatesController.versionsOfMessage': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['WordVersion'][];
        };
      };
    };
  };
  'TemplatesController.faults': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CheckedWords'];
        };
      };
    };
  };
  'TemplatesController.preview': {
    parameters: {
      query?: {
        supporterId?: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Preview'];
        };
      };
    };
  };
  'TogetherController.say': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['GoOnBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TogetherController.all': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['WordNoteView'][];
        };
      };
    };
  };
  'TogetherController.make': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeWordNoteBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'TogetherController.settle': {
    parameters: {
      path: {
        id: number;
        noteId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SettleWordNoteBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AutomationView'][];
        };
      };
    };
  };
  'AutomationsController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeAutomationBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'AutomationsController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AutomationWhole'];
        };
      };
    };
  };
  'AutomationsController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveAutomationBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'AutomationsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.addStep': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AddAutomationStepBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'AutomationsController.changeStep': {
    parameters: {
      path: {
        id: number;
        stepId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeAutomationStepBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'AutomationsController.removeStep': {
    parameters: {
      path: {
        id: number;
        stepId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.anew': {
    parameters: {
      path: {
        id: number;
        stepId: number;
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'AutomationsController.look': {
    parameters: {
      query?: {
        days?: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AutomationLook'];
        };
      };
    };
  };
  'AutomationsController.on': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SwitchOnBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.off': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['OnAutomationBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.people': {
    parameters: {
      query: {
        after?: string;
        limit?: number;
        state: 'waiting' | 'held' | 'done' | 'ended';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['VisitRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'AutomationsController.hurry': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SomeVisitsBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'AutomationsController.takeOut': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SomeVisitsBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            people: number;
          };
        };
      };
    };
  };
  'AutomationsController.letGo': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['HeldVisitsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'AutomationsController.dropHeld': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['HeldVisitsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedsController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedView'][];
        };
      };
    };
  };
  'FeedsController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeFeedBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'FeedsController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedWhole'];
        };
      };
    };
  };
  'FeedsController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveFeedBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'FeedsController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedsController.offer': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedOffer'];
        };
      };
    };
  };
  'FeedsController.rows': {
    parameters: {
      query: {
        type: string;
        filter?: string;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedRows'];
        };
      };
    };
  };
  'FeedsController.notices': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedNotice'][];
        };
      };
    };
  };
  'FeedsController.on': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['TurnFeedBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedsController.off': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['TurnFeedBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedsController.run': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['RunFeedBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'FeedsController.stop': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedsController.takeBack': {
    parameters: {
      path: {
        id: number;
        runId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedSourcesController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FeedSourceView'][];
        };
      };
    };
  };
  'FeedSourcesController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeFeedSourceBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'FeedSourcesController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveFeedSourceBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'FeedSourcesController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'FeedHooksController.hook': {
    parameters: {
      path: {
        key: string;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'ComparingController.add': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'ComparingController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ComparisonView'];
        };
      };
    };
  };
  'ComparingController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveComparisonBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'ComparingController.choose': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChooseWordingBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'PlanController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CampaignPlan'];
        };
      };
    };
  };
  'PlanController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SavePlanBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'PlanController.add': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AddStepBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'PlanController.change': {
    parameters: {
      path: {
        id: number;
        stepId: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeStepBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'PlanController.remove': {
    parameters: {
      path: {
        id: number;
        stepId: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'PlanController.expected': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CampaignExpected'];
        };
      };
    };
  };
  'PlanController.look': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['CampaignLook'];
        };
      };
    };
  };
  'PlanController.go': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SetGoingBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'PlanController.pathOf': {
    parameters: {
      query: {
        supporterId: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['PathStep'][];
        };
      };
    };
  };
  'SenderController.show': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SenderView'];
        };
      };
    };
  };
  'SenderController.check': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SenderView'];
        };
      };
    };
  };
  'SenderController.through': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['SenderView'];
        };
      };
    };
  };
  'SenderController.limits': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveMailLimitsBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SenderController.number': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveTextNumberBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SendingController.readAs': {
    parameters: {
      query?: {
        search?: string;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ReaderView'][];
        };
      };
    };
  };
  'SendingController.proofsOf': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ProofsView'];
        };
      };
    };
  };
  'SendingController.beginProofs': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'SendingController.saveRecipients': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveRecipientsBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'SendingController.second': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AgreeToLookBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SendingController.lastLook': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['LastLook'];
        };
      };
    };
  };
  'SendingController.overlap': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['Overlap'][];
        };
      };
    };
  };
  'SendingController.aheadOf': {
    parameters: {
      query?: {
        at?: string;
        ownTime?: boolean;
        spreadHours?: number;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AheadView'];
        };
      };
    };
  };
  'SendingController.people': {
    parameters: {
      query: {
        after?: string;
        limit?: number;
        verdict:
          | 'send'
          | 'fell-out'
          | 'no-address'
          | 'do-not-contact'
          | 'said-no'
          | 'on-hold'
          | 'asked'
          | 'no-permission'
          | 'paused'
          | 'had-enough'
          | 'shared-address';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['SupporterRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'SendingController.test': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SendTestBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            to: string;
          };
        };
      };
    };
  };
  'SendingController.ownTimesOf': {
    parameters: {
      query: {
        at: string;
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['OwnTimesView'];
        };
      };
    };
  };
  'SendingController.send': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SendMessageBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'SendingController.unschedule': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SendingController.pause': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SendingController.resume': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SendingController.stop': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'BeginController.begin': {
    requestBody: {
      content: {
        'application/json': components['schemas']['BeginToBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'PersonalController.verdict': {
    parameters: {
      query: {
        channel: 'email' | 'text';
        purpose: 'news' | 'appeals' | 'volunteering' | 'service';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['PersonalVerdict'];
        };
      };
    };
  };
  'PersonalController.send': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['PersonalMessageBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'LettersController.view': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['LettersView'];
        };
      };
    };
  };
  'LettersController.make': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeLettersBody'];
      };
    };
    responses: {
      /** @description Done */
      202: {};
    };
  };
  'LettersController.file': {
    parameters: {
      path: {
        id: number;
        fileId: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'LettersController.page': {
    parameters: {
      query?: {
        supporterId?: number;
        form?: 'din-b' | 'us-10';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'LettersController.posted': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['PostedLettersBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.page': {
    parameters: {
      query?: {
        view?: 'open' | 'mine' | 'aside' | 'done';
        q?: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ThreadsView'];
        };
      };
    };
  };
  'InboxController.thread': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['ThreadView'];
        };
      };
    };
  };
  'InboxController.read': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.handled': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['HandledBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.aside': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['PutAsideBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.assign': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['AssignThreadBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.no': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'InboxController.file': {
    parameters: {
      path: {
        id: number;
        fileId: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'ResultsController.of': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['MessageResults'];
        };
      };
    };
  };
  'ResultsController.people': {
    parameters: {
      query: {
        after?: string;
        limit?: number;
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
          | 'waiting'
          | 'kept'
          | 'suppressed';
      };
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['ResultPerson'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'ResultsController.settle': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SettleBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'UnsubscribeController.page': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'UnsubscribeController.leave': {
    parameters: {
      path: {
        token: string;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['LeaveBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'UnsubscribeController.opened': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'UnsubscribeController.clicked': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'FormsController.list': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FormView'][];
        };
      };
    };
  };
  'FormsController.make': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeFormBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'FormsController.show': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['FormView'];
        };
      };
    };
  };
  'FormsController.save': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveFormBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            faults: {
              field: string;
              message: string;
            }[];
          };
        };
      };
    };
  };
  'FormsController.open': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['OpenFormSchemaBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'JoinController.formScript': {
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.frameScript': {
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.page': {
    parameters: {
      path: {
        slug: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.join': {
    parameters: {
      path: {
        slug: string;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['PostedFormBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {};
    };
  };
  'JoinController.begun': {
    parameters: {
      path: {
        slug: string;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'JoinController.privacy': {
    parameters: {
      path: {
        slug: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.qrSvg': {
    parameters: {
      path: {
        slug: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.qrPng': {
    parameters: {
      path: {
        slug: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.look': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.confirm': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      201: {};
    };
  };
  'JoinController.neverAskPage': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'JoinController.neverAsk': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'PreferencesController.page': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'PreferencesController.act': {
    parameters: {
      path: {
        token: string;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['PostedPreferencesBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {};
    };
  };
  'PreferencesController.data': {
    parameters: {
      path: {
        token: string;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'PreferencesController.link': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            to: string;
          };
        };
      };
    };
  };
  'EvidenceController.json': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'EvidenceController.page': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'EvidenceController.pdf': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'EvidenceController.at': {
    parameters: {
      query: {
        address: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['AddressHolder'][];
        };
      };
    };
  };
  'EvidenceController.log': {
    responses: {
      /** @description Done */
      200: {};
    };
  };
  'TextsController.hook': {
    requestBody: {
      content: {
        'application/json': components['schemas']['TextHookBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TextAnswersController.show': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TextAnswers'];
        };
      };
    };
  };
  'TextAnswersController.save': {
    requestBody: {
      content: {
        'application/json': components['schemas']['TextAnswersBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'TodayController.view': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TodayView'];
        };
      };
    };
  };
  'TodayController.week': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['WeekView'];
        };
      };
    };
  };
  'TodayController.done': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DoneView'];
        };
      };
    };
  };
  'TodayController.work': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['JobView'][];
        };
      };
    };
  };
  'TodayController.settle': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SettleTaskBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.organization': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['OrganizationView'];
        };
      };
    };
  };
  'SetupController.save': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveOrganizationBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            version: number;
          };
        };
      };
    };
  };
  'SetupController.style': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['HouseStyle'];
        };
      };
    };
  };
  'SetupController.saveStyle': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveStyleBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.setLogo': {
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.dropLogo': {
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.addChapter': {
    requestBody: {
      content: {
        'application/json': components['schemas']['MakeChapterBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'SetupController.changeChapter': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveChapterBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.all': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['TeammateView'][];
        };
      };
    };
  };
  'SetupController.invite': {
    requestBody: {
      content: {
        'application/json': components['schemas']['InviteBody'];
      };
    };
    responses: {
      /** @description Done */
      201: {
        content: {
          'application/json': {
            id: number;
          };
        };
      };
    };
  };
  'SetupController.inviteAgain': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.change': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['ChangeTeammateBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.waiting': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['WaitingFor'];
        };
      };
    };
  };
  'SetupController.takeOut': {
    parameters: {
      path: {
        id: number;
      };
    };
    requestBody: {
      content: {
        'application/json': components['schemas']['TakeOutTeammateBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.endSessions': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'SetupController.isOpen': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            open: boolean;
          };
        };
      };
    };
  };
  'SetupController.begin': {
    requestBody: {
      content: {
        'application/json': components['schemas']['BeginHouseBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'PermissionController.rules': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['RulesView'];
        };
      };
    };
  };
  'PermissionController.save': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SaveRulesBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['RulesWeighed'];
        };
      };
    };
  };
  'PermissionController.weigh': {
    requestBody: {
      content: {
        'application/json': components['schemas']['WeighRulesBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['RulesWeighed'];
        };
      };
    };
  };
  'PermissionController.settle': {
    requestBody: {
      content: {
        'application/json': components['schemas']['SettleRulesBody'];
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'PermissionController.list': {
    parameters: {
      query?: {
        after?: string;
        limit?: number;
        search?: string;
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': {
            rows: components['schemas']['DncRow'][];
            next: string | null;
            total: number;
          };
        };
      };
    };
  };
  'PermissionController.add': {
    requestBody: {
      content: {
        'application/json': components['schemas']['AddDncBody'];
      };
    };
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DncAdded'];
        };
      };
    };
  };
  'PermissionController.addFile': {
    responses: {
      /** @description Done */
      200: {
        content: {
          'application/json': components['schemas']['DncAdded'];
        };
      };
    };
  };
  'PermissionController.remove': {
    parameters: {
      path: {
        id: number;
      };
    };
    responses: {
      /** @description Done */
      204: {};
    };
  };
  'PermissionController.file': {
    responses: {
      /** @description Done */
      200: {};
    };
  };
}
