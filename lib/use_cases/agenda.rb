module UseCases
  # The agenda of a meeting, with what is left over, for mails and as a PDF.
  class Agenda < Base
    # @return [Hash, nil] nil while nothing is planned
    def of(meeting_id)
      meeting = find(Records::Meeting.includes(:held_place, series: :held_place), meeting_id)
      series = meeting.series
      topics = Topics.new(clock: @clock).here(meeting_id)
      left_over = left_over(series.id, meeting)
      return if topics.empty? && left_over.empty?

      zone = series.zone
      names = Records::Person.where(id: topics.map(&:presenter_id)).pluck(:id, :name).to_h
      {
        title: series.title,
        at:
          "#{Core::Words.day(zone.wall(meeting.starts_at).date)}, " \
            "#{Core::Words.clock(zone.wall(meeting.starts_at))}–#{Core::Words.clock(zone.wall(meeting.ends_at))} " \
            "#{zone.place} time",
        location: meeting.location,
        topics:
          topics.map do |topic|
            {title: topic.title, length_min: topic.length_min, presenter: names[topic.presenter_id]}
          end,
        left_over: left_over
      }
    end

    # Of the next meeting of a series. @return [Hash, nil]
    def of_next(series_id) =
      Records::Meeting.where(series_id: series_id).coming(now).in_order.first&.then { |meeting| of(meeting.id) }

    # @return [Array(String, String)] name and bytes @raise [Core::Conflict] while nothing is planned
    def pdf(meeting_id)
      agenda = of(meeting_id) or raise Core::Conflict.new("Nothing is planned for this meeting yet.", code: "empty")
      ["#{agenda[:title]}, agenda.pdf", Mailing::AgendaPdf.new(agenda).to_s]
    end

    private

    def left_over(series_id, meeting)
      ledger = Ledgers.of([series_id])[series_id]
      actions = ledger.left_over_actions(meeting.id).select { |action| action.state == :open }
      records =
        Records::ActionItem
          .where(id: actions.map(&:id))
          .includes(owners: :person)
          .to_h { |action| [action.id, action] }
      actions.map do |action|
        records
          .fetch(action.id)
          .then do |record|
            {
              text: record.text, owners: record.owners.map { |owner| owner.person.name },
              carried: ledger.carried(action)
            }
          end
      end
    end
  end
end
