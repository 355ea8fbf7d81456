module UseCases
  # Asking people to come: what would go out, and sending it.
  class Invitations < Base
    # To whom and what, before anything goes.
    def preview(series_id:, note: nil)
      load(series_id)
      told = Records::Mail.where(reason: @people.map { |member| reason(member) }).pluck(:reason).to_h { |key| [key, true] }
      parts = parts_for(@people.first, note)
      {sequence: @series.sequence, subject: parts[:subject], text: parts[:text], html: parts[:html],
       recipients: @people.map { |member|
         {person_id: member.person_id, name: member.person.name, email: member.person.email, role: member.role, told: told.key?(reason(member))}
       }}
    end

    # Puts one mail for each person into the outbox; somebody who has this version already gets none.
    # @param id [String] key made by the browser for this press of the button
    # @return [Hash] how many mails this sending holds
    def send_all(id:, series_id:, note: nil)
      once(Records::Sending, id) do
        find(Records::Series.lock, series_id) # so that a second sender sees what the first has put into the outbox
        load(series_id)
        fresh = @people.select { |member| outbox.put(reason: reason(member), series_id: series_id, to: member.person, **parts_for(member, note)) }
        Records::Sending.create!(id: id, series_id: series_id, sent_by_id: by, sequence: @series.sequence, recipients: fresh.size, note: words(note), sent_at: now)
        @series.update!(told_sequence: @series.sequence, told_at: now)
      end
      progress(id)
    end

    # How far a sending has come.
    def progress(id, series_id: nil)
      sending = find(series_id ? Records::Sending.where(series_id: series_id) : Records::Sending, id)
      mails = Records::Mail.where(series_id: sending.series_id).where("reason like ?", "request:#{sending.series_id}:#{sending.sequence}:%")
      counts = mails.group(:state).count
      {id: id, recipients: sending.recipients, waiting: counts["waiting"] || 0, sent: counts["sent"] || 0, failed: counts["failed"] || 0}
    end

    private

    def load(series_id)
      @series = find(Records::Series.includes(:keeper, :held_place, members: :person), series_id)
      @people = @series.members.sort_by { |member| [Core::Invitation::Request::ROLES.keys.index(member.role.to_sym), member.person.name] }
      raise Core::Conflict.new("Nobody is in this series yet.", code: "nobody") if @people.empty?

      meetings = @series.meetings.in_order.to_a
      @run = @series.to_run(by_hand: @series.rule ? [] : meetings.drop(1).map(&:original_wall))
      @called_off = meetings.select { |meeting| meeting.state == "called_off" }.map(&:original_wall)
      @moved = meetings.select { |meeting| meeting.moved_at && meeting.state != "called_off" }
      @next = meetings.find { |meeting| Core::Sheet::Lifecycle::OPEN.include?(meeting.state.to_sym) && meeting.ends_at > now }
    end

    def reason(member) = "request:#{@series.id}:#{@series.sequence}:#{member.person_id}"

    def outbox = @outbox ||= Outbox.new(clock: @clock)

    def parts_for(member, note)
      Mailing::Invitation.new(
        title: @series.title, purpose: @series.purpose, place: @series.location, sentence: @run.sentence, note: words(note),
        keeper: @series.keeper.name, recipient: member.person.name, role: member.role, first: first_meeting(member.person),
        changed: !@series.told_sequence.nil?, url: "#{Settings.origin}/series/#{@series.id}", calendar: calendar
      ).parts.merge(reply_to: @series.keeper.email)
    end

    # The next meeting on the recipient's own wall.
    def first_meeting(person)
      return unless @next

      zone = Core::Zone[person.time_zone]
      wall = zone.wall(@next.starts_at)
      "#{Core::Words.day(wall.date)}, #{Core::Words.clock(wall)} #{zone.place} time"
    end

    def calendar
      @calendar ||= Core::Invitation::Request.new(
        uid: "series-#{@series.id}@#{Settings.mail_domain}", sequence: @series.sequence, run: @run, title: @series.title,
        description: [@series.purpose, "#{Settings.origin}/series/#{@series.id}"].compact.join("\n\n"), location: @series.location,
        organizer: Core::Invitation::Request::Organizer.new(name: @series.keeper.name, address: @series.keeper.email),
        attendees: @people.map { |member|
          Core::Invitation::Request::Attendee.new(name: member.person.name, address: member.person.email, role: member.role.to_sym, answer: :none)
        }, called_off: @called_off, now: now,
        moved: @moved.map { |meeting| Core::Invitation::Request::Moved.new(original: meeting.original_wall, start: @series.zone.wall(meeting.starts_at), length_min: meeting.interval.length_min) }
      ).to_ical
    end
  end
end
