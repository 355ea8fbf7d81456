require "digest"
require "mini_mime"

module UseCases
  # Telling people: who has not been told yet and of what, sending it, and composing each mail when it is handed over.
  class Invitations < Base
    # What a mail says, and what it makes of somebody: asked, or not asked any more.
    KINDS = {
      invited: "request", changed: "request", brought_back: "request", called_off: "cancel", taken_off: "cancel"
    }.freeze
    OFF = %i[called_off taken_off].freeze
    # Up to so many, everybody sees who else is asked; beyond, each mail names its reader alone.
    MOST_LISTED = 100
    BATCH = 500
    AGENDA_NAME = "agenda.pdf"
    # Papers go with the mail up to so much in all, for many mail services take little more; the rest is linked (common
    # practice).
    MOST_ATTACHED_BYTES = 10_000_000

    # To whom and what, before anything goes.
    # @param person_id [String, nil] whose mail is shown; nil: the first to be told
    def preview(series_id:, note: nil, person_id: nil)
      load(series_id)
      waiting = pending
      shown =
        (waiting + told_already(waiting))
          .find { |one| one[:person].id == person_id }
          &.then { |one| {before: nil, **one, kind: one[:kind] || :invited} } || waiting.first || everybody.first ||
        {person: @series.keeper, role: :required, kind: :invited, before: nil}
      parts = parts_for(
        shown, note: words(note), wording: own_words(shown[:person], @content), content: @content,
        before: shown[:before], attendees: attendees
      )
      {
        subject: parts[:subject],
        text: parts[:text],
        copy: copy(shown, note),
        html: parts[:html],
        attachments: [
          *(AGENDA_NAME if agenda_of_next),
          *papers_of_next.select { |paper| paper[:attached] }.map { |paper| paper[:name] }
        ],
        agenda_of: next_meeting&.id,
        shown_person_id: shown[:person].id,
        changes: changes_since_last_sending,
        recipients:
          (waiting + told_already(waiting))
            .sort_by { |one| [one[:kind] ? 0 : 1, one[:person].name] }
            .map { |one| recipient_view(one) } +
            substitutes.pending(series_id).map { |one, kind| substitute_view(one, kind) }
      }
    end

    # @return [Hash] how many have not been told, and of what, in words
    def untold(series_id)
      load(series_id)
      waiting = pending
      others = substitutes.pending(series_id)
      counts = KINDS.keys.without(:changed).to_h { |kind| [kind, waiting.count { |one| one[:kind] == kind }] }
      counts[:invited] += others.count { |one, kind| kind == :request && one.told_digest.nil? }
      {people: waiting.size + others.size, **counts, changes: changes_since_last_sending}
    end

    # Puts one mail for each person who is not told yet into the outbox; somebody who has this version already gets
    # none.
    # @param id [String] key made by the browser for this press of the button
    # @return [Hash] how many mails this sending holds
    def send_all(id:, series_id:, note: nil)
      once(Records::Sending, id, within: series_id) do
        # Locked, so that a second sender sees what the first has put into the outbox.
        series = find(Records::Series.lock, series_id)
        load(series_id)
        waiting = pending
        sequence = (Records::Sending.where(series_id: series_id).maximum(:sequence) || -1) + 1
        Records::Sending.create!(
          id: id, series_id: series_id, sent_by_id: by, sequence: sequence, recipients: waiting.size,
          note: words(note), sent_at: now,
          content: @content.to_plain.merge("attendees" => attendees, "wording" => @series.wording)
        )
        waiting.each_slice(BATCH) { |some| put(id, some, sequence) }
        series.update!(sequence: sequence, told_sequence: sequence, told_at: now)
        substitutes.tell_pending(series_id)
        if waiting.any?
          Records::Event.note(
            "told",
            "#{Core::Words.count(waiting.size, "person")} " \
              "told#{": #{words(note)}" if words(note)}",
            series_id: series_id, now: now, person_id: by
          )
        end
      end
      progress(id)
    end

    # Mails once more to those who have not answered. @return [Hash] as `send_all`
    def remind_silent(id:, meeting_id:, note: nil)
      meeting = find(Records::Meeting.includes(:series), meeting_id)
      once(Records::Sending, id, within: meeting_id) do
        load(meeting.series_id)
        last = Records::Sending.where(series_id: meeting.series_id).where.not(content: nil).order(:sequence).last or
          raise Core::Conflict.new("Nobody has been invited yet.", code: "not-told")
        silent = silent_at(meeting)
        sending = Records::Sending.create!(
          id: id, series_id: meeting.series_id, sent_by_id: by, sequence: last.sequence, recipients: silent.size,
          note: words(note), sent_at: now, content: last.content
        )
        rows = silent.map do |member|
          mail_row(
            sending.id, {person: member.person, role: member.role.to_sym, kind: :reminder},
            "remind:#{id}:#{member.person_id}"
          )
        end
        Records::Mail.insert_all(rows) if rows.any?
        Records::Event.note(
          "reminded", "#{Core::Words.list(silent.map { |member| member.person.name })} reminded to answer",
          series_id: meeting.series_id, meeting_id: meeting_id, now: now, person_id: by
        )
      end
      progress(id)
    end

    # How far a sending has come.
    def progress(id, series_id: nil)
      sending = find(series_id ? Records::Sending.where(series_id: series_id) : Records::Sending, id)
      counts = Records::Mail.where(sending_id: id).group(:state).count
      failed =
        Records::Mail
          .where(sending_id: id, state: "failed")
          .limit(20)
          .pluck(:recipient, :last_error)
          .map { |recipient, error| {address: recipient, error: error} }
      {
        id: id, recipients: sending.recipients, waiting: counts["waiting"] || 0,
        sent: counts.values_at("sent", "delivered").sum(&:to_i), failed: counts["failed"] || 0, failures: failed
      }
    end

    # The mail itself, composed when it is handed over; the same each time, for its sending does not change.
    # @return [Hash] what Mailing::Message#source takes besides key and address
    def compose(mail)
      sending = sending(mail.sending_id)
      @series = (@series_of ||= {})[sending.series_id] ||= find(Records::Series.includes(:keeper), sending.series_id)
      before = mail.before_sending_id && sending(mail.before_sending_id).content
      one = {person: Records::Person.find(mail.person_id), role: mail.role.to_sym, kind: mail.kind.to_sym}
      if before
        one[:role_before] = Records::Mail
          .where(sending_id: mail.before_sending_id, person_id: mail.person_id)
          .pick(:role)
          &.to_sym
      end
      content = Core::Invitation::Content.of(sending.content)
      parts_for(
        one,
        note: sending.note,
        wording: own_words(one[:person], content, sending.content["wording"], sending.sent_at),
        content: content,
        before: before && Core::Invitation::Content.of(before),
        attendees: sending.content["attendees"],
        sequence: sending.sequence,
        at: sending.sent_at
      ).merge(attachments: OFF.include?(one[:kind]) ? [] : attachments)
    end

    # Sends the invitation as it stands to one who has asked for it (REFRESH, RFC 5546 3.2.6).
    def send_again(series_id:, person_id:, reason:)
      telling = Records::Telling.find_by(series_id: series_id, person_id: person_id, kind: "request") or return
      load_series(series_id)
      person = Records::Person.find(person_id)
      role = Records::SeriesMember.where(series_id: series_id, person_id: person_id).pick(:role) || "required"
      Records::Mail.insert_all(
        [
          mail_row(
            telling.sending_id, {person: person, role: role.to_sym, kind: :invited}, "again:#{reason}:#{person_id}",
            series_id: series_id
          )
        ]
      )
    end

    private

    def outbox = @outbox ||= Outbox.new(clock: @clock)

    def substitutes = Substitutes.new(by: by, clock: @clock)

    def substitute_view(one, kind)
      {
        person_id: one.person_id,
        name: [one.person.name, one.instead_of&.name].compact.join(", instead of "),
        email: one.person.email,
        role: "required",
        told: false,
        guest: one.person.guest,
        what:
          if kind == :cancel
            "called off"
          else
            (one.told_digest ? "changed" : "invited")
          end
      }
    end

    # A batch of mails is mostly of one sending.
    def sending(id) = (@sendings ||= {})[id] ||= Records::Sending.find(id)

    def load_series(series_id)
      @series = find(Records::Series.includes(:keeper, :held_place, members: :person), series_id)
    end

    def load(series_id)
      load_series(series_id)
      @content = SeriesContent.of(@series, now)
      raise Core::Conflict.new("Nobody is in this series yet.", code: "nobody") if @series.members.empty?
      raise Core::Conflict.new("Somebody else invites to this meeting.", code: "outside") if @series.outside_meeting_id
    end

    # Everybody asked, as if to be told anew; whoever keeps the series knows, unless they want mail about it too.
    def everybody = members_to_tell.map do |member|
      {person: member.person, role: member.role.to_sym, kind: :invited, before: nil}
    end

    def members_to_tell = @series.members.reject { |member| knows?(member.person) }

    def knows?(person) = person.id == @series.keeper_id && !person.mail_own

    # Who is to be told, each with what they were told last.
    def pending
      return [] if @content.nil? || @series.outside_meeting_id # whoever organises it tells people

      tellings =
        Records::Telling
          .where(series_id: @series.id)
          .includes(:person, :sending)
          .to_h { |telling| [telling.person_id, telling] }
      coming = @series.meetings.coming(now).exists?
      off = !coming && (@content.start.nil? || !@content.ended.nil?)
      asked = coming ? everybody.filter_map { |one| request_for(one, tellings[one[:person].id]) } : []
      gone = tellings.values.select do |telling|
        telling.kind == "request" && !knows?(telling.person) &&
          (
            if off
              telling.digest != digest((last_mail(telling)&.role || "required").to_sym)
            else
              !member?(telling.person_id)
            end
          )
      end
      asked +
        gone.map do |telling|
          {
            person: telling.person, role: :required, kind: off ? :called_off : :taken_off, before: content_of(telling)
          }
        end
    end

    def member?(person_id) = @series.members.any? { |member| member.person_id == person_id }

    # Who was told that everything is called off hears that it takes place after all; who was taken off is invited anew.
    def request_for(one, telling)
      return one if telling.nil?
      if telling.kind == "cancel"
        return one.merge(kind: (last_mail(telling)&.kind == "called_off") ? :brought_back : :invited)
      end

      if telling.digest != digest(one[:role])
        one.merge(kind: :changed, before: content_of(telling), role_before: last_mail(telling)&.role&.to_sym)
      end
    end

    # What somebody was last told with, all looked up at once.
    def last_mail(telling)
      @last_mails ||=
        Records::Mail
          .where(sending_id: Records::Telling.where(series_id: @series.id).select(:sending_id))
          .where.not(kind: "reminder")
          .select(:sending_id, :person_id, :kind, :role)
          .index_by { |mail| [mail.sending_id, mail.person_id] }
      @last_mails[[telling.sending_id, telling.person_id]]
    end

    def content_of(telling) = telling.sending.content && Core::Invitation::Content.of(telling.sending.content)

    def digest(role) = Digest::SHA256.hexdigest(JSON.generate([@content.matters, role]))

    def told_already(waiting)
      ids = waiting.map { |one| one[:person].id }
      everybody.reject { |one| ids.include?(one[:person].id) }.map { |one| one.merge(kind: nil) }
    end

    def changes_since_last_sending
      last = Records::Sending.where(series_id: @series.id).where.not(content: nil).order(:sequence, :sent_at).last or
        return []
      Core::Invitation::Difference.between(Core::Invitation::Content.of(last.content), @content, from: now).map(
        &:to_h
      )
    end

    def put(sending_id, some, sequence)
      Records::Mail.insert_all(
        some.map { |one| mail_row(sending_id, one, "#{one[:kind]}:#{sending_id}:#{one[:person].id}") }
      )
      tellings = some.map do |one|
        {
          id: Records::Key.make(now), series_id: @series.id, person_id: one[:person].id, sending_id: sending_id,
          kind: KINDS.fetch(one[:kind]), digest: digest(one[:role]), sequence: sequence, created_at: now,
          updated_at: now
        }
      end
      Records::Telling.upsert_all(tellings, update_only: %i[sending_id kind digest sequence updated_at])
    end

    def mail_row(sending_id, one, reason, series_id: @series.id)
      before =
        one[:before] && Records::Telling.where(series_id: series_id, person_id: one[:person].id).pick(:sending_id)
      {
        id: Records::Key.make(now),
        reason: reason,
        message_id: outbox.message.message_id(reason),
        series_id: series_id,
        sending_id: sending_id,
        person_id: one[:person].id,
        before_sending_id: before,
        kind: one[:kind].to_s,
        role: one[:role].to_s,
        recipient: one[:person].email,
        subject: Core::Words.shorten(Mailing::Invitation.subject(one[:kind], @series.title), 200),
        due_at: now,
        state: "waiting",
        created_at: now,
        updated_at: now
      }
    end

    def attendees =
      if @series.members.size > MOST_LISTED
        []
      else
        @series.members.map do |member|
          {"name" => member.person.name, "address" => member.person.email, "role" => member.role}
        end
      end

    # The words for other ways than mail: they go to whoever is shown them, so no link in them is somebody's own.
    def copy(shown, note)
      parts_for(
        shown.merge(kind: :invited, before: nil), note: words(note),
        wording: own_words(shown[:person], @content, link: false), content: @content, before: nil, attendees: [],
        link: false
      )[
        :text
      ]
    end

    # @param link [Boolean] whether it is for that reader's eyes alone
    def parts_for(one, note:, wording:, content:, before:, attendees:, sequence: @series.sequence, at: now, link: true)
      person, off = one[:person], OFF.include?(one[:kind])
      Mailing::Invitation
        .new(
          agenda: off ? nil : agenda_of_next,
          papers: off ? [] : papers_of_next,
          kind: one[:kind],
          content: content,
          note: note,
          wording: wording,
          keeper: @series.keeper.name,
          role: one[:role].to_s,
          role_before: one[:role_before]&.to_s,
          first: first_meeting(person, content, at),
          changes:
            (
              if before && !off
                Core::Invitation::Difference.between(
                  before, content, reader: Core::Zone[person.time_zone], from: at
                ).map(&:to_h)
              else
                []
              end
            ),
          url: (series_url unless off || person.guest),
          answer_url: (AnswerLinks.address(@series.id, person.id) if link && !off),
          options: @series.options,
          calendar: (calendar(one, content, before, attendees, sequence, at) unless one[:kind] == :reminder)
        )
        .parts
        .merge(reply_to: @series.keeper.email)
    end

    def series_url = "#{Settings.origin}/series/#{@series.id}"

    # The keeper's wording, filled for one reader.
    def own_words(person, content, wording = @series.wording, at = now, link: true)
      return if wording.nil? || content.start.nil?

      agenda = agenda_of_next
      Core::Invitation::Wording.fill(
        wording,
        "title" => content.title,
        "next" => first_meeting(person, content, at),
        "rule" => content.sentence,
        "place" => content.location,
        "call" => content.online&.to_s,
        "answer link" => (AnswerLinks.address(@series.id, person.id) if link),
        "keeper" => content.keeper,
        "agenda" => agenda && agenda[:topics].map { |topic| topic[:title] }.join("\n"),
        "left over" =>
          agenda && agenda[:left_over].map { |action| [action[:text], *action[:owners]].join(" – ") }.join("\n")
      )
    end

    # Made once for a batch of mails of one series.
    def agenda_of_next =
      (@agendas ||= {}).fetch(@series.id) { @agendas[@series.id] = Agenda.new(clock: @clock).of_next(@series.id) }

    def attachments
      papers =
        papers_of_next
          .select { |paper| paper[:attached] }
          .map { |paper| [paper[:name], paper[:type], bytes_of(paper[:id])] }
      agenda_of_next ? [[AGENDA_NAME, "application/pdf", agenda_pdf], *papers] : papers
    end

    def next_meeting = (@nexts ||= {}).fetch(@series.id) do
      @nexts[@series.id] = Records::Meeting.where(series_id: @series.id).coming(now).in_order.first
    end

    # Papers of the next meeting, in their order; attached as long as all together are not too much.
    def papers_of_next
      (@papers ||= {})[@series.id] ||= begin
        room = MOST_ATTACHED_BYTES
        papers = next_meeting ? Papers.of(next_meeting.id) : []
        papers.map do |paper|
          attached = paper[:size_bytes] <= room
          room -= paper[:size_bytes] if attached
          {
            id: paper[:id], name: paper[:name],
            type: MiniMime.lookup_by_filename(paper[:name])&.content_type || paper[:content_type],
            size_bytes: paper[:size_bytes], attached: attached
          }
        end
      end
    end

    # Read once for a batch of mails.
    def bytes_of(paper_id) =
      (@bytes ||= {})[paper_id] ||= Records::PaperPiece.where(paper_id: paper_id).order(:number).pluck(:bytes).join

    def agenda_pdf = (@pdfs ||= {})[@series.id] ||= Mailing::AgendaPdf.new(agenda_of_next).to_s

    # The next meeting on the recipient's own wall.
    def first_meeting(person, content, at)
      return unless content.start

      coming = @series.meetings.where(state: %w[planned in_session]).where("ends_at > ?", at).minimum(:starts_at) or
        return
      zone = Core::Zone[person.time_zone]
      wall = zone.wall(coming)
      "#{Core::Words.day(wall.date)}, #{Core::Words.clock(wall)} #{zone.place} time"
    end

    # A cancellation speaks of the meeting as it was last told. Where only what is to come is called off, what has been
    # stays.
    def calendar(one, content, before, attendees, sequence, at)
      person = one[:person]
      off = OFF.include?(one[:kind]) && (content.start.nil? || one[:kind] == :taken_off || !member?(person.id))
      content = before if off && before
      return unless content&.start

      me = {"name" => person.name, "address" => person.email, "role" => one[:role].to_s}
      listed = off ? [me] : [me, *attendees.reject { |other| other["address"] == me["address"] }]
      url = person.guest ? AnswerLinks.address(@series.id, person.id) : series_url
      Core::Invitation::Request.new(
        method: off ? :cancel : :request,
        uid: SeriesContent.uid(@series.id),
        sequence: sequence,
        content: content,
        url: url,
        description: [content.purpose, content.online && "Call: #{content.online}", url].compact.join("\n\n"),
        organizer: Core::Invitation::Request::Organizer.new(name: @series.keeper.name, address: Settings.mail_from),
        attendees: listed.map { |other| attendee(other, person) },
        own_answers: off ? {} : own_answers(person),
        blocks: one[:role] != :informed,
        alarm_min: alarm_min(person),
        now: at
      ).to_ical
    end

    # Answers to single meetings that are not the answer to all.
    def own_answers(person)
      replies =
        Records::Reply
          .where(person_id: person.id, meeting_id: @series.meetings.coming(now).select(:id))
          .where.not(answer: ["none", run_answer(person)])
      walls =
        Records::Meeting
          .where(id: replies.map(&:meeting_id))
          .to_h { |meeting| [meeting.id, meeting.original_wall.to_s] }
      replies.to_h { |reply| [walls[reply.meeting_id], reply.answer.to_sym] }.sort.to_h
    end

    def run_answer(person) =
      Records::SeriesMember.where(series_id: @series.id, person_id: person.id).pick(:run_answer) || "none"

    # As long before as they want to be reminded themselves, else as the series has it, else as is usual.
    def alarm_min(person) =
      [person.remind_min, @series.remind_min].compact.find(&:positive?) || Core::Invitation::Request::ALARM_MIN

    # Their own answer stands as they gave it, unless they are asked anew.
    def attendee(listed, person)
      answer = (listed["address"] == person.email) ? run_answer(person) : "none"
      Core::Invitation::Request::Attendee.new(
        name: listed["name"], address: listed["address"], role: listed["role"].to_sym, answer: answer.to_sym,
        asked: @series.answers_asked
      )
    end

    def silent_at(meeting)
      return [] unless meeting.options.waits_for_answers?

      answered = Records::Reply.where(meeting_id: meeting.id).where.not(answer: "none").pluck(:person_id)
      answered += Records::Substitute.where(meeting_id: meeting.id).pluck(:instead_of_id)
      @series.members.reject { |member| member.role == "informed" || answered.include?(member.person_id) }
    end

    def recipient_view(one)
      {
        person_id: one[:person].id, name: one[:person].name, email: one[:person].email, role: one[:role],
        told: one[:kind].nil?, guest: one[:person].guest, what: one[:kind]&.to_s&.tr("_", " ") || "nothing"
      }
    end
  end
end
