# Conversations of RFC 5546 section 4 and cases around them; each names its clause in `source`.
RSpec.describe Core::Invitation::Entry do
  def iso(seconds) = seconds && Time.at(seconds).utc.iso8601

  # An event without STATUS is confirmed; a day has no instants.
  def status(event) = event.status.empty? ? "CONFIRMED" : event.status.upcase

  def start(event) = event && (event.start.date? ? event.start.wall.date.iso8601 : iso(event.start.instant_s))

  def finish(event) = event && (event.start.date? ? nil : iso(event.ends_s(event.start.instant_s)))

  def state(entry, until_at)
    shown = entry.shown
    event = shown&.event
    {
      "event" =>
        shown &&
          {
            "uid" => @uid, "sequence" => shown.sequence, "status" => shown.cancelled ? "CANCELLED" : status(event),
            "start" => start(event), "end" => finish(event), "summary" => event&.title, "location" => event&.location
          },
      "attendees" => entry.attendees.transform_values(&:upcase),
      "instances" =>
        if shown
          entry
            .instances(Time.at(0), until_at)
            .map { |instance| event&.start&.date? ? iso(instance.starts_s)[0, 10] : iso(instance.starts_s) }
            .first(30)
        end,
      "overrides" =>
        entry
          .parts
          .compact
          .reject { |key, _| key.nil? }
          .to_h do |key, part|
            [
              iso(key),
              {
                "sequence" => part.sequence, "status" => part.cancelled ? "CANCELLED" : part.event.status.upcase,
                "start" => iso(part.event&.start&.instant_s),
                "end" => part.event && iso(part.event.ends_s(part.event.start.instant_s))
              }
            ]
          end,
      "instance_attendees" =>
        entry.instance_attendees.to_h { |key, answers| [iso(key), answers.transform_values(&:upcase)] },
      "pending_counters" =>
        entry.counters.map do |counter|
          {
            "from" => counter.from, "recurrence_id" => iso(counter.recurrence_s), "start" => iso(counter.starts_s),
            "end" => iso(counter.ends_s)
          }
        end,
      "party_crashers" => entry.crashers.transform_values(&:upcase),
      "busy" => entry.busy.transform_values { |spans| spans.map { |span| span.map { |second| iso(second) } } }
    }
  end

  reference("itip").each do |vector|
    it "#{vector["id"]}: #{vector["text"]}" do
      entry = described_class.new(vector["store"].to_sym)
      until_at = vector["instances_until"] ? Time.iso8601(vector["instances_until"]) : Time.utc(2010)
      vector["steps"].each do |step|
        message = Core::Invitation::Message.read(step["text"])
        @uid = message.uid
        outcome = entry.take(message, sender: step["sender"], outgoing: step["direction"] == "out")
        expect(outcome.to_s.tr("_", "-")).to eq(step["expect_outcome"]), "step #{step["n"]}: #{outcome}"
        found = state(entry, until_at)
        step["expect"].each do |name, expected|
          expect(found[name]).to eq(expected),
            "step #{step["n"]} #{name}: #{found[name].inspect} instead of #{expected.inspect}"
        end
      end
    end
  end
end
