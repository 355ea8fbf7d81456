module UseCases
  # What is waiting for whoever runs series: times that are offered, people who will not come after all, mail that did not arrive.
  class Waiting < Base
    # A refusal is news for so long, of meetings so near.
    NEWS_S = 3 * 86_400
    NEAR_S = 14 * 86_400

    def show = {offers: offers, refusals: refusals, failed_mails: failed_mails}

    # Another address for a guest whose mail does not arrive, and the last mail once more.
    # @raise [Core::NotFound] when no mail of this series has failed for them
    def correct_address(series_id:, person_id:, email:)
      email = Core::MailAddress.read!(email)
      write do
        person = find(Records::Person.lock, person_id)
        failed = Records::Mail.where(series_id: series_id, recipient: person.email, state: "failed").order(:created_at).last or raise Core::NotFound
        raise Core::Conflict.new("Only guests can be given another address here. An admin can do it under People & places.", code: "not-a-guest") unless person.guest || person.email == email
        raise Core::Invalid.new("Somebody with the address #{email} is here already.", pointer: "/email", code: "taken") if Records::Person.where(email: email).where.not(id: person_id).exists?

        person.update!(email: email)
        again(failed, email)
      end
      nil
    end

    private

    # The mail as it was, under a reason of its own.
    def again(failed, email)
      reason = "again:#{failed.id}:#{failed.attempts}:#{now.to_i}"
      copy = failed.attributes.slice("series_id", "sending_id", "person_id", "before_sending_id", "kind", "role", "subject", "way", "source")
      Records::Mail.create!(**copy.symbolize_keys, id: Records::Key.make(now), reason: reason, message_id: Outbox.new(clock: @clock).message.message_id(reason), recipient: email, due_at: now, state: "waiting")
    end

    def mine = @mine ||= Records::Series.run_by(by).to_a.index_by(&:id)

    def offers
      Records::Counter.where(series_id: mine.keys, state: "open").joins(:meeting).where("meetings.ends_at > ?", now).includes(:person, :meeting).order(:created_at, :id).map do |counter|
        series = mine[counter.series_id]
        {id: counter.id, series_id: series.id, title: series.title, name: counter.person.name, meeting_local_start: series.zone.wall(counter.meeting.starts_at), local_start: series.zone.wall(counter.starts_at)}
      end
    end

    def refusals
      meetings = Records::Meeting.where(series_id: mine.keys).coming(now).where("starts_at < ?", now + NEAR_S).index_by(&:id)
      replies = Records::Reply.where(meeting_id: meetings.keys, answer: "declined").where("answered_at > ?", now - NEWS_S).where.not(person_id: by).where("entered_by_id is null or entered_by_id <> ?", by).includes(:person).order(:answered_at)
      replies.map do |reply|
        meeting = meetings[reply.meeting_id]
        series = mine[meeting.series_id]
        {meeting_id: meeting.id, series_id: series.id, title: series.title, name: reply.person.name, note: reply.note, local_start: series.zone.wall(meeting.starts_at)}
      end
    end

    # Addresses that the last mail of a series could not reach.
    def failed_mails
      rows = Records::Mail.where(series_id: mine.keys, way: "mail", recipient: Records::Mail.where(series_id: mine.keys, state: "failed").select(:recipient)).where.not(state: %w[waiting set_aside]).order(:created_at, :id).pluck(:series_id, :recipient, :state, :last_error)
      failed = rows.to_h { |series_id, recipient, state, error| [[series_id, recipient], (error.to_s if state == "failed")] }.compact
      people = Records::Person.where(email: failed.keys.map(&:last)).index_by(&:email)
      failed.filter_map do |(series_id, recipient), error|
        person = people[recipient] or next
        {series_id: series_id, title: mine[series_id].title, person_id: person.id, name: person.name, guest: person.guest, email: recipient, error: error}
      end
    end
  end
end
