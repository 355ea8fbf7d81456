module Views
  # What happened to a series: what changed, when, by whom, who was told; and what became of each mail.
  class History < Base
    PAGE_SIZE = 50

    def show(series_id, page: 1)
      zone = find(Records::Series, series_id).zone
      events = Records::Event.where(series_id: series_id)
      shown = events.order(happened_at: :desc, id: :desc).offset((page - 1) * PAGE_SIZE).limit(PAGE_SIZE).to_a
      names = Records::Person.where(id: shown.filter_map(&:person_id).uniq).pluck(:id, :name).to_h
      {
        events:
          shown.map do |event|
            {
              id: event.id, kind: event.kind, words: event.words, by: event.person_id && names[event.person_id],
              meeting_id: event.meeting_id, local_at: zone.wall(event.happened_at)
            }
          end,
        page: page,
        page_size: PAGE_SIZE,
        total: events.count
      }
    end

    # Each mail of the series, newest first: to whom, and whether the mail service has taken it.
    def mails(series_id, page: 1)
      zone = find(Records::Series, series_id).zone
      mails = Records::Mail.where(series_id: series_id)
      shown =
        mails
          .select(
            :id, :recipient, :subject, :way, :state, :attempts, :last_error, :delivered_at, :sent_at, :created_at
          )
          .order(created_at: :desc, id: :desc)
          .offset((page - 1) * PAGE_SIZE)
          .limit(PAGE_SIZE)
      {
        mails:
          shown.map do |mail|
            {
              id: mail.id, recipient: mail.recipient, subject: mail.subject, way: mail.way, state: mail.state,
              attempts: mail.attempts, error: mail.last_error,
              local_at: zone.wall(mail.delivered_at || mail.sent_at || mail.created_at)
            }
          end,
        page: page,
        page_size: PAGE_SIZE,
        total: mails.count
      }
    end
  end
end
