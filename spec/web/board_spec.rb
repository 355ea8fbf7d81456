require_relative "../web_helper"
require_relative "../support/readable"

# A board's meeting, each of its statements read in every form it is told in: held on another day than planned, somebody
# who comes and goes, a motion that is lost, more votes than people, a decision below quorum, a topic in camera.
RSpec.describe "A board's meeting" do
  let(:marit) { person("Marit Hauge") }
  let(:chair) { person("Petra Lindqvist") }
  let(:trustees) { [chair, person("Gunnar Vik"), person("Ines Torvald")] }
  let(:lars) { person("Lars Ekeli") }
  let!(:board) do
    series(
      marit, {required: [marit, *trustees], optional: lars}, chair_id: chair, title: "Trustees", quorum: 3,
      guests: [{id: key, name: "Odd Dahl", email: "odd@port.example", role: "optional"}],
      start: "#{today + 2}T16:00", rule: "FREQ=WEEKLY;COUNT=3"
    )
  end
  let(:meeting) { meeting_ids(board).first }

  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  def write(text, shown = text)
    find(".entry textarea").click
    press(text, :enter)
    expect(page).to have_css ".line", text: shown
  end

  def mark(name, state) = select(state, from: "#{name} is")

  def close_the_pay
    fill_in "Add a topic", with: "The manager's pay"
    click_button "Add text …"
    find("label", text: "Closed: for who must come, the keeper, the chair and deputies alone").click
    find_field("Add a topic").send_keys(:enter)
    expect(page).to have_css ".topic", text: /The manager's pay\s+closed/
  end

  def vote(text, **counts)
    click_button "Motion: #{text}"
    counts.each { |label, number| fill_in label.to_s.capitalize, with: number }
    keep
  end

  def hold
    click_button "Start the meeting"
    expect(page).to have_content "It is planned for"
    click_button "Hold it now"
    click_button "All others are here"
    expect(page).to have_content(/HERE · (\d) OF \1/)
  end

  before do
    topic(meeting, marit, "Accounts", purpose: "decision")
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    close_the_pay
    hold
  end

  def said(form) = Readable.words(fetched("/api/meetings/#{meeting}/minutes.#{form}")).gsub(/\s+/, " ")

  def mail_to(address)
    found = nil
    eventually do
      tray = JSON.parse(Net::HTTP.get(URI("#{PostOffice.address}/mails.json?to=#{address}")))["mails"]
      mine = tray.find { |mail| mail["subject"].start_with?("Minutes: Trustees") }
      found = mine && Mail.new(Net::HTTP.get(URI("#{PostOffice.address}/mails/#{mine["key"]}/source")))
    end
    found
  end

  def issue
    click_button "Close the meeting"
    expect(page).to have_content "DRAFT"
    click_button "Issue the minutes"
    expect(dialog).to have_content(/\d things? to look at (is|are) still open/)
    keep "Issue and send to 6 people"
    expect(page).to have_content "ISSUED"
  end

  it "says what was lost, what was decided by too few, who was there when, and what is closed, everywhere alike",
    :aggregate_failures do
    write("Agreed: sell the tender", "Sell the tender")
    vote("Sell the tender", for: 1, against: 3)
    expect(page).to have_css ".line", text: /Motion.*Sell the tender/m
    write("Agreed: buy a crane", "Buy a crane")
    click_button "Motion: Buy a crane"
    fill_in "For", with: 9
    keep
    expect(dialog).to have_content "9 votes, but only 4 of those who must come are here."
    fill_in "For", with: 3
    keep
    expect(page).to have_no_css ".v-dialog"
    mark("Gunnar Vik", "left")
    mark("Ines Torvald", "left")
    write("Agreed: paint the shed", "Paint the shed")
    expect(page).to have_css ".line", text: "below quorum"
    click_button "Discuss now: The manager's pay"
    expect(page).to have_button "Closed topic: Lars Ekeli and Odd Dahl leave"
    find(".entry textarea").click
    press(:f7)
    expect(page).to have_content "left"
    write("Agreed: ten percent more", "Ten percent more")
    click_button "Discuss now: Accounts"
    expect(page).to have_button "Back in: Lars Ekeli and Odd Dahl"
    find(".entry textarea").click
    press(:f7)
    expect(page).to have_no_button "Back in: Lars Ekeli and Odd Dahl"
    issue

    held = today.strftime("%A %-d %B %Y")
    %w[txt md html pdf].each do |form|
      words = said(form).gsub(/<[^>]+>|[*\\]/, " ").squeeze(" ")
      expect(words).to include(held, "Planned for", "Gunnar Vik", "Ten percent more", "below"), form
      expect(words).to match(/Motion ?:? Sell the tender.*not carried: 1 for, 3 against/)
      expect(words).to match(/Decided 20\d\d\/1 ?:? Buy a crane/)
      # On paper the two stand in a column of their own.
      expect(words).to match(/Decided 20\d\d\/2,(?: below)?(?: quorum ?:?)? Paint the shed/)
    end
    inside, outside = mail_to(address_of("Ines Torvald")), mail_to("odd@port.example")
    [inside.text_part.decoded, outside.text_part.decoded].each do |text|
      expect(text.dup.force_encoding("UTF-8"))
        .to include("Quorum: 3", "Here:", "Chair: Petra Lindqvist", "below quorum")
    end
    expect(Readable.mail(inside)).to include "Ten percent more"
    expect(Readable.mail(outside)).to include("Closed topic").and(satisfy { |text| !text.include?("Ten percent") })
    expect(outside.text_part.decoded).to include "/answer/"

    visit "/decisions"
    expect(page).to have_css "li", text: /Paint the shed.*below quorum/m
    expect(page).to have_no_content "Sell the tender"
    visit "/search?q=tender"
    expect(page).to have_content "motion, not carried"
    visit "/search?q=shed"
    expect(page).to have_content "decision, below quorum"
    sign_out
    sign_in_as("Lars Ekeli")
    visit "/meetings/#{meeting}"
    expect(page).to have_css ".topic", text: "Closed topic"
    expect(page).to have_no_content "Ten percent more"
    visit "/search?q=percent"
    expect(page).to have_content "Nothing has these words"
  end

  it "asks about several actions in one line, and about votes that cannot be, and takes what is meant" do
    write("Ines to buy rope, Gunnar to return the old one by Friday", "Two actions?")
    click_button "Make it 2 lines"
    expect(page).to have_css ".line.action", text: "Buy rope"
    expect(page).to have_css ".line.action", text: "Return the old one"
    eventually { Records::ActionItem.order(:created_at).pluck(:text) == ["Buy rope", "Return the old one"] }
    write("Agreed: buy a crane", "Buy a crane")
    click_button "Motion: Buy a crane"
    fill_in "For", with: 9
    keep
    click_button "Save it all the same"
    expect(page).to have_no_css ".v-dialog"
    eventually { Records::Motion.pick(:in_favour) == 9 }
  end

  it "asks who the crew is, and knows it from then on" do
    write("The crew to grease the winch", "Who is the crew?")
    select "Gunnar Vik", from: "Who is the crew?"
    expect(page).to have_css ".line.action", text: /The crew to grease the winch.*Gunnar Vik/m
    eventually { Records::Series.find(board).called == {"crew" => trustees[1]} }
    write("Crew to paint it by Friday", "Paint it")
    expect(page).to have_css ".line.action", text: /Paint it.*Gunnar Vik/m
    person("Rory Blake")
    write("Rory to order lids", "Rory Blake is not of this series.")
    click_button "Ask Rory Blake to this meeting"
    expect(page).to have_css ".line.action", text: /Order lids.*Rory Blake/m
    visit "/series/#{board}"
    click_button "Remove: the crew is Gunnar Vik"
    expect(page).to have_no_content "the crew is"
  end

  it "is caught up with by who was not there, until they say they have seen it" do
    mark("Ines Torvald", "absent")
    write("Agreed: buy a crane", "Buy a crane")
    click_button "Close the meeting"
    expect(page).to have_content "DRAFT"
    sign_out
    sign_in_as("Ines Torvald")
    click_link "Trustees", href: "/series/#{board}/catching-up"
    expect(page).to have_content "1 meeting without you"
    expect(page).to have_content "Buy a crane"
    expect_accessible
    visit "/"
    click_button "Seen: missed meetings of Trustees"
    expect(page).to have_no_content "without you"
  end
end
