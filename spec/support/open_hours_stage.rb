require_relative "mailbox"

# Open hours of Marit on a Monday, and what visitors do with them.
RSpec.shared_context "with open hours" do
  let!(:marit) { person("Marit Hauge", admin: true) }
  let!(:wen) { person("Wen Halloran", zone: "America/Halifax") }
  let(:day) { today + 7 + (8 - (today + 7).cwday) % 7 } # a Monday
  let(:oslo) { Core::Zone["Europe/Oslo"] }
  let(:wish) do
    {title: "Buoy clinic", timeZone: "Europe/Oslo", lengths: [30, 60], stepMin: 30, noticeMin: 60,
     hosts: [{personId: marit, week: {mo: [%w[09:00 11:00]], tu: [], we: [], th: [], fr: [], sa: [], su: []}}]}
  end

  before do
    sign_in(marit)
  end

  def make(**rest) = call(:post, "/open-hours", {id: key, **wish, **rest}).tap { agree(wen) }

  def hosting(person_id) = Records::OpenHoursHost.order(:created_at).where(person_id: person_id).last

  def agree(person_id, **rest)
    use(UseCases::Hosting, person_id).agree(id: hosting(person_id).id, **rest) if hosting(person_id)
  end

  def link(open) = open["path"].sub("/book/", "/open-hours-links/")

  def at(clock, on = day) = oslo.instant(Core::WallTime.parse("#{on}T#{clock}")).iso8601

  def times(open, length: 30, month: day.strftime("%Y-%m"), zone: "Europe/Oslo")
    call(:get, "#{link(open)}?month=#{month}&timeZone=#{zone}&lengthMin=#{length}", token: false)
  end

  # Starts on the Monday, as the visitor's clock shows them.
  def free(open, **rest)
    found = times(open, **rest)["days"].find { |one| one["on"] == day.iso8601 } or return []
    zone = Core::Zone[rest[:zone] || "Europe/Oslo"]
    found["times"].map { |one| Core::Words.clock(zone.wall(Time.iso8601(one["startsAt"]))) }
  end

  def book(open, clock, id: key, name: "Odd Dahl", email: "odd@port.example", **rest)
    call(:post, "#{link(open)}/bookings", {
      id: id, startsAt: at(clock), lengthMin: 30, name: name, email: email, timeZone: "Europe/Lisbon", **rest
    }, token: false)
  end

  def own(booking) = booking["path"].sub("/booking/", "/booking-links/")

  def box = @box ||= Mailbox.new(clock)

  # All mails somebody has got, as they have them.
  def mails(to)
    box.fetch
    box.to(to.split("@").first).map(&:mail)
  end

  def problem = JSON.parse(last_response.body)

  def pointers = problem["errors"].map { |one| one["pointer"] }
end
