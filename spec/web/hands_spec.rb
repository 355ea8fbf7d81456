require_relative "../web_helper"

# Whoever keeps the minutes does so without looking for the mouse, and what was just typed stays in sight.
RSpec.describe "Hands on a sheet in session" do
  let(:marit) { person("Marit Hauge") }
  let(:people) do
    ["Ines Torvald", "Lars Ekeli", "Lars Moen", "Wen Halloran"].map do |name|
      person(name, email: "#{name.delete(" ").downcase}@skerrybuoy.example")
    end
  end
  let!(:week) { series(marit, {required: people}, start: "#{today + 3}T09:30") }
  let(:meetings) { meeting_ids(week) }
  let(:meeting) { meetings[1] }
  let!(:topics) { ["Safety round", "Boats and crew"].map { |title| topic(meeting, marit, title) } }

  before do
    state(meetings[0], marit, "in_session")
    %w[Rope Sand Buoy Lamp].each { |text| raise_action(meetings[0], marit, text) }
    state(meetings[0], marit, "closed")
    state(meeting, marit, "in_session")
  end

  def open_sheet
    sign_in_as("Marit Hauge")
    visit "/meetings/#{meeting}"
    expect(page).to have_css "[data-entry] textarea:focus"
    expect(page).to have_content "all saved"
  end

  def press(*keys) = keys.each { |key| page.driver.browser.keyboard.type(key) }

  def on_line(text, *keys)
    page.execute_script("arguments[0].focus()", find(:button, "Edit the line: #{text}", visible: :all))
    press(*keys)
  end

  def write_under(title)
    click_button title
    expect(page).to have_field "Next line under #{title}", focused: true
  end

  def expect_box = expect(page).to have_css("[data-entry] textarea:focus")

  def expect_hand(label) = expect(page).to have_css("[aria-label='#{label}']:focus", visible: :all)

  def kept(topic_id = topics[0]) = Records::Line.standing.where(topic_id: topic_id).in_order.pluck(:text)

  it "walk over the lines and back, and never fall to the page" do
    open_sheet
    write_under "Safety round"
    press("Rope", :enter, "Sand", :enter, :up)
    expect(page).to have_field "Line", with: "Sand", focused: true
    press(" and shell", :enter)
    expect_box
    press(:up)
    expect(page).to have_field "Line", with: "Sand and shell", focused: true
    press(:escape)
    expect_box
    press("Chalk", :enter)
    expect(page).to have_css ".line", text: "Chalk"
    on_line("Rope", :down)
    expect_hand "Edit the line: Sand and shell"
    press(:up, :delete)
    expect_hand "Edit the line: Sand and shell"
    press(:escape)
    expect_box
    eventually { kept == ["Sand and shell", "Chalk"] }
    on_line("Chalk", :enter)
    expect(page).to have_field "Line", with: "Chalk", focused: true
    click_button "Remove the line"
    expect_box
    eventually { kept == ["Sand and shell"] }
  end

  it "stay with a topic that is moved, and come back from its form" do
    open_sheet
    handle = "Move Safety round: arrow up or down"
    page.execute_script("arguments[0].focus()", find(:button, handle))
    press(:down)
    eventually { Records::Topic.where(meeting_id: meeting).order(:position).first.title == "Boats and crew" }
    expect(page).to have_css ".topic:nth-of-type(3) h2", text: "Safety round"
    expect_hand handle
    click_button "Edit the topic Safety round"
    expect(page).to have_field "Topic", focused: true
    press(:escape)
    expect_hand "Edit the topic Safety round"
  end

  [[1280, 800], [1280, 600], [390, 800]].each do |width, height|
    it "see what was just kept, and its question, above the box at #{width} by #{height}" do
      24.times do |i|
        UseCases::Minutes.new(by: marit).add(
          id: key, meeting_id: meeting, text: "Buoy #{i}", kind: "note", topic_id: topics[0]
        )
      end
      open_sheet
      write_under "Safety round"
      page.driver.browser.resize(width: width, height: height)
      page.execute_script("scrollTo(0, 200)")
      press("Lars to order rope by Friday", :enter)
      expect(page).to have_content "Which Lars?"
      eventually { seen?(find(".doubt", text: "Which Lars?")) }
      expect_box
    ensure
      page.driver.browser.resize(width: 1280, height: 800)
    end
  end

  # Nothing lies over it.
  def seen?(element)
    page.evaluate_script(<<~JS, element)
      (one => {
        const { left, top, bottom } = one.getBoundingClientRect()
        const at = y => one.contains(document.elementFromPoint(left + 4, y))
        return top >= 0 && bottom <= innerHeight && at(top + 3) && at(bottom - 3)
      })(arguments[0])
    JS
  end

  it "typing where no field is does nothing" do
    open_sheet
    page.execute_script("document.activeElement.blur()")
    "main crane is at the dock".each_char { |key| press(key) }
    press("t")
    expect(page).to have_no_css ".v-dialog"
    expect(page).to have_button "Close the meeting"
    expect(page).to have_no_content "Issue the minutes"
    expect(Records::Meeting.find(meeting).state).to eq "in_session"
  end

  it "say who is here by two letters, and go on from topic to topic, without leaving the keyboard" do
    open_sheet
    write_under "Safety round"
    press(:f2)
    expect(page).to have_field "Somebody, by two letters of a name", focused: true
    press("w", "e")
    expect_hand "Wen Halloran is"
    press("h")
    expect(page).to have_field "Somebody, by two letters of a name", focused: true, with: ""
    press("la")
    expect(page).to have_content "Lars Ekeli or Lars Moen?"
    press(:backspace, :backspace, "mo")
    expect_hand "Lars Moen is"
    press("s")
    press(:f2)
    expect_box
    eventually { Records::Attendance.where(meeting_id: meeting).pluck(:state).sort == %w[apologies present] }
    press(:f8)
    expect(page).to have_content "put off to the next meeting"
    press(:f8)
    expect(page).to have_no_content "put off to the next meeting"
    press(:f4)
    expect(page).to have_field "Next line under Boats and crew", focused: true
  end

  it "review what is left over card by card" do
    open_sheet
    press(:f9)
    expect(page).to have_css ".card:focus", text: "Rope"
    press("d")
    expect(page).to have_css ".card:focus", text: "Sand"
    press("c")
    expect(page).to have_field "A word on it", focused: true
    press("Waits for the boat", :enter)
    expect(page).to have_css ".card:focus", text: "Buoy"
    press("x")
    expect(page).to have_field "Why it is dropped", focused: true
    press("Sunk", :enter)
    expect(page).to have_css ".card:focus", text: "Lamp"
    press("s")
    expect(page).to have_field "Parts, each on a row of its own", focused: true
    press("Buy the lamp", :enter, "Hang the lamp")
    page.driver.browser.keyboard.type([:ctrl, :enter])
    eventually { Records::ActionItem.where(series_id: week, text: ["Buy the lamp", "Hang the lamp"]).count == 2 }
    press(:f9)
    expect_box
    states = Records::ActionItem.where(series_id: week, text: %w[Rope Sand Buoy]).in_order_of(:text, %w[Rope Sand Buoy])
    eventually { states.reload.map(&:state) == %w[done open dropped] }
  end

  it "find on a phone who is here, what is left over and the end, and are back at the line" do
    open_sheet
    page.driver.browser.resize(width: 390, height: 800)
    {"Who is here" => "#here", "Left over" => "#left", "Close" => "[data-next] button"}.each do |jump, there|
      within("nav[aria-label='On this sheet']") { click_button jump }
      expect(page).to have_css "#{there}:focus"
      eventually { seen?(find(there, match: :first)) }
    end
    within("nav[aria-label='On this sheet']") { click_button "Line" }
    expect_box
  ensure
    page.driver.browser.resize(width: 1280, height: 800)
  end

  it "find again after a reload what was half done" do
    open_sheet
    write_under "Safety round"
    press("Rope", :enter)
    expect(page).to have_content "all saved"
    press("Half a li", :f4)
    expect(page).to have_field "Next line under Boats and crew", focused: true
    expect(page).to have_content "A half line waits here."
    on_line("Rope", :enter)
    press(" and chalk")
    visit "/meetings/#{meeting}"
    expect(page).to have_field "Line", with: "Rope and chalk"
    expect(page).to have_content "You had begun to edit this line."
    click_button "Go on with it"
    expect(page).to have_field "Next line under Safety round", with: "Half a li", focused: true
    within(".line") { click_button "Save" }
    expect(page).to have_css ".line", text: "Rope and chalk"
    eventually { kept == ["Rope and chalk"] }
  end
end
